import { revokePieceLinks } from '../../../services/client/links'

export default route('DELETE /api/pieces/:id/link', async ({ id, person }) =>
  revokePieceLinks(id(), person, await now()),
)

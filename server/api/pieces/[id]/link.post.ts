import { makePieceLink } from '../../../services/client/links'

export default route('POST /api/pieces/:id/link', async ({ id, person }) => makePieceLink(id(), person, await now()))

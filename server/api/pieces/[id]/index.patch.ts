import { changePiece } from '../../../services/piece/pieces'

export default route('PATCH /api/pieces/:id', async ({ id, body, person }) =>
  changePiece(id(), body, person, await now()),
)

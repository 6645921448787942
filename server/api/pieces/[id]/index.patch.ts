import { changePiece } from '../../../services/plan/wish'

export default route('PATCH /api/pieces/:id', async ({ id, body, person }) =>
  changePiece(id(), body, person, await now()),
)

import { changeFace } from '../../services/piece/findings'

export default route('PATCH /api/faces/:id', async ({ id, body, person }) =>
  changeFace(id(), body, person, await now()),
)

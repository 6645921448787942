import { changeFace } from '../../services/findings'

export default route('PATCH /api/faces/:id', async ({ id, body, person }) =>
  changeFace(id(), body, person, await now()),
)

import { changeFinding } from '../../services/piece/findings'

export default route('PATCH /api/findings/:id', async ({ id, body, person }) =>
  changeFinding(id(), body, person, await now()),
)

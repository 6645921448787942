import { changeBand } from '../../../services/bands'

export default route('PATCH /api/bands/:id', async ({ id, body, person }) =>
  changeBand(id(), body, person, await now()),
)

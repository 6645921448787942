import { changeBand } from '../../../services/colour/bands'

export default route('PATCH /api/bands/:id', async ({ id, body, person }) =>
  changeBand(id(), body, person, await now()),
)

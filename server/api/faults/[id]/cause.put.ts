import { found } from '../../../services/diagnosis/faults'

export default route('PUT /api/faults/:id/cause', async ({ id, body, person }) =>
  found(id(), body, person, await now()),
)

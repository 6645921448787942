import { actOnBatch } from '../../../services/colour/potActs'

export default route('POST /api/batches/:id/acts', async ({ id, body, person }) =>
  actOnBatch(id(), body, person, await now()),
)

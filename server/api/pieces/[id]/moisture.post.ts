import { addMoisture } from '../../../services/examination/record'

export default route('POST /api/pieces/:id/moisture', async ({ id, body, person }) =>
  addMoisture(id(), body, person, await now()),
)

import { addBand } from '../../../services/colour/bands'

export default route('POST /api/pieces/:id/bands', async ({ id, body, person }) =>
  addBand(id(), body, person, await now()),
)

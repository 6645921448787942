import { becomes } from '../../../services/piece/enquiry'

export default route('PUT /api/pieces/:id/state', async ({ id, body, person }) =>
  becomes(id(), body, person, await now()),
)

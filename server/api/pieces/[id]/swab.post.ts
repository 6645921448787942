import { readSwab } from '../../../services/examination'

export default route('POST /api/pieces/:id/swab', async ({ id, body, person }) =>
  readSwab(id(), body, person, await now()),
)

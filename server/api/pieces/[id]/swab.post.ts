import { readSwab } from '../../../services/examination/record'

export default route('POST /api/pieces/:id/swab', async ({ id, body, person }) =>
  readSwab(id(), body, person, await now()),
)

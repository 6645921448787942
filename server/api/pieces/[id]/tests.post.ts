import { addTest } from '../../../services/examination/record'

export default route('POST /api/pieces/:id/tests', async ({ id, body, person }) =>
  addTest(id(), body, person, await now()),
)

import { addPatch } from '../../../services/examination/record'

export default route('POST /api/pieces/:id/patches', async ({ id, body, person }) =>
  addPatch(id(), body, person, await now()),
)

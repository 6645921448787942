import { addParts } from '../../../services/piece/pieces'

export default route('POST /api/pieces/:id/parts', async ({ id, body, person }) =>
  addParts(id(), body, person, await now()),
)

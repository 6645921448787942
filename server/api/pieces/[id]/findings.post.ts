import { addFinding } from '../../../services/piece/findings'

export default route('POST /api/pieces/:id/findings', async ({ id, body, person }) =>
  addFinding(id(), body, person, await now()),
)

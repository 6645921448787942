import { addFinding } from '../../../services/pieces'

export default route('POST /api/pieces/:id/findings', async ({ id, body, person }) => addFinding(id(), body, person, await now()))

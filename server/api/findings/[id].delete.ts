import { withdrawFinding } from '../../services/pieces'

export default route('DELETE /api/findings/:id', async ({ id, person }) => withdrawFinding(id(), person, await now()))

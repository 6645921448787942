import { withdrawFinding } from '../../services/piece/findings'

export default route('DELETE /api/findings/:id', async ({ id, person }) => withdrawFinding(id(), person, await now()))

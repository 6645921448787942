import { withdrawTest } from '../../services/pieces'

export default route('DELETE /api/tests/:id', async ({ id, person }) => withdrawTest(id(), person, await now()))

import { withdrawTest } from '../../services/examination'

export default route('DELETE /api/tests/:id', async ({ id, person }) => withdrawTest(id(), person, await now()))

import { withdrawTest } from '../../services/examination/record'

export default route('DELETE /api/tests/:id', async ({ id, person }) => withdrawTest(id(), person, await now()))

import { addBatch } from '../../services/batches'

export default route('POST /api/batches', async ({ body, person }) => addBatch(body, person, await now()))

import { addBatch } from '../../services/colour/pots'

export default route('POST /api/batches', async ({ body, person }) => addBatch(body, person, await now()))

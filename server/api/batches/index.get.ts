import { listBatches } from '../../services/colour/pots'

export default route('GET /api/batches', ({ query }) => listBatches(query))

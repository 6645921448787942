import { listBatches } from '../../services/batches'

export default route('GET /api/batches', ({ query }) => listBatches(query))

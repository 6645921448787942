import { batchPage } from '../../../services/batches'

export default route('GET /api/batches/:id', ({ id }) => batchPage(id()))

import { batchPage } from '../../../services/colour/pots'

export default route('GET /api/batches/:id', ({ id }) => batchPage(id()))

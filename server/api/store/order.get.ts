import { orderFile } from '../../services/store/order'

export default route('GET /api/store/order', async ({ event, query }) =>
  sendPdf(event, await orderFile(query.supplier, query.size, await now())),
)

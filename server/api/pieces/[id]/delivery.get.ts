import { deliveryFile } from '../../../services/papers/delivery'

export default route('GET /api/pieces/:id/delivery', async ({ event, id, query }) =>
  sendPdf(event, await deliveryFile(id(), query.size, await now())),
)

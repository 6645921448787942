import { potLabel } from '../../../services/papers/labels'

export default route('GET /api/batches/:id/label', async ({ event, id, query }) =>
  sendPdf(event, await potLabel(id(), query)),
)

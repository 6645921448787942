import { lotLabel } from '../../../services/papers/labels'

export default route('GET /api/lots/:id/label', async ({ event, id, query }) =>
  sendPdf(event, await lotLabel(id(), query, await now())),
)

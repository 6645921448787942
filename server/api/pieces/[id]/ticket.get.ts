import { ticketFile } from '../../../services/papers/ticket'

export default route('GET /api/pieces/:id/ticket', async ({ event, id, query }) =>
  sendPdf(event, await ticketFile(id(), query.size, await now())),
)

import { coloursFile } from '../../../services/papers/colours'

export default route('GET /api/pieces/:id/colours', async ({ event, id, query }) =>
  sendPdf(event, await coloursFile(id(), query.size, await now())),
)

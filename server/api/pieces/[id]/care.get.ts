import { careFile } from '../../../services/papers/care'

export default route('GET /api/pieces/:id/care', async ({ event, id, query }) =>
  sendPdf(event, await careFile(id(), query.size, await now(), query.part === 'yes')),
)

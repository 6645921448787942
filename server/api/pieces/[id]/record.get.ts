import { recordFile } from '../../../services/papers/record'

export default route('GET /api/pieces/:id/record', async ({ event, id, query }) =>
  sendPdf(event, await recordFile(id(), query.size, await now())),
)

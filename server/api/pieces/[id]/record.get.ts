import { recordFile } from '../../../services/client/papers'

export default route('GET /api/pieces/:id/record', async ({ event, id, query }) =>
  sendPdf(event, await recordFile(id(), query.size, await now())),
)

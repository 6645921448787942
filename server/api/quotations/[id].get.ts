import { quotationFile } from '../../services/papers/quotation'

export default route('GET /api/quotations/:id', async ({ event, id, query }) =>
  sendPdf(event, await quotationFile(id(), query.size)),
)

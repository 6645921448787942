import { statementFile } from '../../../services/papers/statement'

export default route('GET /api/pieces/:id/statement', async ({ event, id, query }) =>
  sendPdf(event, await statementFile(id(), query.size, await now())),
)

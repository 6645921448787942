import { conditionFile } from '../../../services/papers/condition'

export default route('GET /api/pieces/:id/condition', async ({ event, id, query, person }) =>
  sendPdf(event, await conditionFile(id(), query.size, person, await now())),
)

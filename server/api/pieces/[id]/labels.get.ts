import { pieceLabels } from '../../../services/papers/labels'

export default route('GET /api/pieces/:id/labels', async ({ event, id, query }) =>
  sendPdf(event, await pieceLabels(id(), query, await now())),
)

import { placeLabel } from '../../../services/papers/labels'

export default route('GET /api/places/:code/label', async ({ event, param, query }) =>
  sendPdf(event, await placeLabel(param('code'), query)),
)

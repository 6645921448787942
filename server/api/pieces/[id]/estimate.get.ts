import { estimatePage } from '../../../services/client/estimate'

export default route('GET /api/pieces/:id/estimate', async ({ id }) => estimatePage(id(), await now()))

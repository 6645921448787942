import { askingPage } from '../../../services/client/asking'

export default route('GET /api/pieces/:id/asking', async ({ id }) => askingPage(id(), await now()))

import { composePage } from '../../../services/plan/compose'

export default route('GET /api/pieces/:id/build-up', async ({ id }) => composePage(id(), await now()))

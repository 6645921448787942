import { planningPage } from '../../../services/plans'

export default route('GET /api/pieces/:id/planning', async ({ id }) => planningPage(id(), await now()))

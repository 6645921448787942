import { planningPage } from '../../../services/plan/choose'

export default route('GET /api/pieces/:id/planning', async ({ id }) => planningPage(id(), await now()))

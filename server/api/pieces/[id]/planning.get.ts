import { planningPage } from '../../../services/plan/choose'

export default route('GET /api/pieces/:id/planning', async ({ id, person }) => planningPage(id(), person, await now()))

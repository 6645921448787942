import { planPage } from '../../../services/plans'

export default route('GET /api/pieces/:id/plan', async ({ id, person }) => planPage(id(), person, await now()))

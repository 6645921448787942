import { planPage } from '../../../services/plan/page'

export default route('GET /api/pieces/:id/plan', async ({ id, person }) => planPage(id(), person, await now()))

import { routesPage } from '../../../services/plans'

export default route('GET /api/pieces/:id/routes', async ({ id, query }) => routesPage(id(), query, await now()))

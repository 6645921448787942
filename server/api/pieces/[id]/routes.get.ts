import { routesPage } from '../../../services/plan/choose'

export default route('GET /api/pieces/:id/routes', async ({ event, id, query }) =>
  routesPage(id(), query, await now(), goneSignal(event)),
)

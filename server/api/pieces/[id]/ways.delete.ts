import { dropWays } from '../../../services/plan/choose'

export default route('DELETE /api/pieces/:id/ways', async ({ id, query, person }) =>
  dropWays(id(), query.rowVersion, person, await now()),
)

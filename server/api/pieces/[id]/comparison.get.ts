import { comparison } from '../../../services/examination/reports'

export default route('GET /api/pieces/:id/comparison', async ({ id, query, person }) =>
  comparison(id(), query, person, await now()),
)

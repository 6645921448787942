import { takeBack } from '../../../services/piece/handOver'

export default route('DELETE /api/pieces/:id/hand-over', async ({ id, query, person }) =>
  takeBack(id(), query.rowVersion, person, await now()),
)

import { handOver } from '../../../services/piece/handOver'

export default route('POST /api/pieces/:id/hand-over', async ({ id, body, person }) =>
  handOver(id(), body, person, await now()),
)

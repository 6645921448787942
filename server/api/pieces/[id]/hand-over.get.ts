import { handOverPage } from '../../../services/piece/handOver'

export default route('GET /api/pieces/:id/hand-over', async ({ id }) => handOverPage(id(), await now()))

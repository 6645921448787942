import { piecePage } from '../../../services/piece/pieces'

export default route('GET /api/pieces/:id', async ({ id }) => piecePage(id(), await now()))

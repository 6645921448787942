import { pieceNeeds } from '../../../services/store/needs'

export default route('GET /api/pieces/:id/needs', async ({ id }) => pieceNeeds(id(), await now()))

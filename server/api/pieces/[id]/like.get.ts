import { likePieces } from '../../../services/piece/like'

export default route('GET /api/pieces/:id/like', ({ id }) => likePieces(id()))

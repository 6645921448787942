import { pieceAir } from '../../../services/breath/pieceAir'

export default route('GET /api/pieces/:id/air', ({ id }) => pieceAir(id()))

import { pieceAir } from '../../../services/plan/vapour'

export default route('GET /api/pieces/:id/air', ({ id }) => pieceAir(id()))

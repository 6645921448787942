import { pieceLog } from '../../../services/bench/log'

export default route('GET /api/pieces/:id/log', ({ id, query }) => pieceLog(id(), query))

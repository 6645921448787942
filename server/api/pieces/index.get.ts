import { listPieces } from '../../services/piece/pieces'

export default route('GET /api/pieces', ({ query }) => listPieces(query))

import { listPieces } from '../../services/pieces'

export default route('GET /api/pieces', ({ query }) => listPieces(query))

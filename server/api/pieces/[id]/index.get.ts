import { piecePage } from '../../../services/piece/pieces'

export default route('GET /api/pieces/:id', ({ id }) => piecePage(id()))

import { piecePage } from '../../../services/pieces'

export default route('GET /api/pieces/:id', ({ id }) => piecePage(id()))

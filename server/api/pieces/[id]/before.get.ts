import { before } from '../../../services/piece/again'

export default route('GET /api/pieces/:id/before', ({ id }) => before(id()))

import { readLog } from '../../../services/bench'

export default route('GET /api/pieces/:id/log', ({ id }) => readLog(id()))

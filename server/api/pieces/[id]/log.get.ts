import { readLog } from '../../../services/bench/log'

export default route('GET /api/pieces/:id/log', ({ id }) => readLog(id()))

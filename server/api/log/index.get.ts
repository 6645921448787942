import { dayLog } from '../../services/bench/log'

export default route('GET /api/log', async ({ query }) => dayLog(query, await now()))

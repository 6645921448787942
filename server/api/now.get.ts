import { nowPage } from '../services/bench/now'

export default route('GET /api/now', async () => nowPage(await now()))

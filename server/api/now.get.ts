import { nowPage } from '../services/now'

export default route('GET /api/now', async () => nowPage(await now()))

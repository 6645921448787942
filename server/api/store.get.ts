import { storePage } from '../services/store/store'

export default route('GET /api/store', async () => storePage(await now()))

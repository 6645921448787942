import { pacesPage } from '../../services/shop/paces'

export default route('GET /api/paces', async () => pacesPage(await now()))

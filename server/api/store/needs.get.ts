import { needsPage } from '../../services/store/needs'

export default route('GET /api/store/needs', async () => needsPage(await now()))

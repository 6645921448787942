import { feedsPage } from '../../services/schedule/feeds'

export default route('GET /api/feeds', async ({ person }) => feedsPage(person))

import { answersPage } from '../services/client/page'

export default route('GET /api/answers', async () => answersPage(await now()))

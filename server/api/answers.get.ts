import { answersPage } from '../services/approvals'

export default route('GET /api/answers', async () => answersPage(await now()))

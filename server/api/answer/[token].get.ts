import { clientPage } from '../../services/client/page'

export default route('GET /api/answer/:token', async ({ param }) => clientPage(param('token'), await now()))

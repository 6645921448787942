import { clientPage } from '../../services/approvals'

export default route('GET /api/answer/:token', async ({ param }) => clientPage(param('token'), await now()))

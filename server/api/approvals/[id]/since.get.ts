import { sinceAsked } from '../../../services/client/page'

export default route('GET /api/approvals/:id/since', async ({ id }) => ({ since: await sinceAsked(id(), await now()) }))

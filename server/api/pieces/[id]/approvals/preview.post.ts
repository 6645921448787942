import { preview } from '../../../../services/client/ask'

export default route('POST /api/pieces/:id/approvals/preview', async ({ id, body }) => preview(id(), body, await now()))

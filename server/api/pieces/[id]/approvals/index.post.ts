import { ask } from '../../../../services/client/ask'

export default route('POST /api/pieces/:id/approvals', async ({ id, body, person }) =>
  ask(id(), body, person, await now()),
)

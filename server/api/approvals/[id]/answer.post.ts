import { recordAnswer } from '../../../services/approvals'

export default route('POST /api/approvals/:id/answer', async ({ id, body, person }) =>
  recordAnswer(id(), body, person, await now()),
)

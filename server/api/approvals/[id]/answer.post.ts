import { recordAnswer } from '../../../services/client/answers'

export default route('POST /api/approvals/:id/answer', async ({ id, body, person }) =>
  recordAnswer(id(), body, person, await now()),
)

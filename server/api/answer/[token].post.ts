import { clientAnswers } from '../../services/approvals'

export default route('POST /api/answer/:token', async ({ param, body }) =>
  clientAnswers(param('token'), body, await now()),
)

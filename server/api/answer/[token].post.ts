import { clientAnswers } from '../../services/client/answers'

export default route('POST /api/answer/:token', async ({ param, body }) =>
  clientAnswers(param('token'), body, await now()),
)

import { replyWord } from '../../../services/client/answers'

export default route('POST /api/approvals/:id/words', async ({ id, body, person }) =>
  replyWord(id(), body, person, await now()),
)

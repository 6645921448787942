import { replyWord } from '../../../services/approvals'

export default route('POST /api/approvals/:id/words', async ({ id, body, person }) =>
  replyWord(id(), body, person, await now()),
)

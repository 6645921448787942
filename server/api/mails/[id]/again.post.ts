import { sendAgain } from '../../../services/platform/mail'

export default route('POST /api/mails/:id/again', async ({ id, body, person }) =>
  sendAgain(id(), body, person, await now()),
)

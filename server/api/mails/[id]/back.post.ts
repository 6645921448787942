import { cameBack } from '../../../services/platform/mail'

export default route('POST /api/mails/:id/back', async ({ id, body, person }) =>
  cameBack(id(), body, person, await now()),
)

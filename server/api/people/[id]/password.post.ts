import { resetPassword } from '../../../services/people'

export default route('POST /api/people/:id/password', async ({ id, body, person }) =>
  resetPassword(id(), body, person, await now()),
)

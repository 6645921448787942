import { resetPassword } from '../../../services/shop/people'

export default route('POST /api/people/:id/password', async ({ id, body, person }) =>
  resetPassword(id(), body, person, await now()),
)

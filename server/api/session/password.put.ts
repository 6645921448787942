import { changePassword } from '../../services/shop/door'

export default route('PUT /api/session/password', async ({ event, body, person }) =>
  changePassword(event, body, person, await now()),
)

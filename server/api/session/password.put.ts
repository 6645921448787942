import { changePassword } from '../../services/people'

export default route('PUT /api/session/password', async ({ event, body, person }) =>
  changePassword(event, body, person, await now()),
)

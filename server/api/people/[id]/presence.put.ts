import { changePresence } from '../../../services/shop/presence'

export default route('PUT /api/people/:id/presence', async ({ id, body, person }) =>
  changePresence(id(), body, person, await now()),
)

import { standsAt } from '../../../services/piece/items'

export default route('PUT /api/pieces/:id/place', async ({ id, body, person }) =>
  standsAt(id(), body, person, await now()),
)

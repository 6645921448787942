import { choose } from '../../../services/plans'

export default route('PUT /api/pieces/:id/choice', async ({ id, body, person }) =>
  choose(id(), body, person, await now()),
)

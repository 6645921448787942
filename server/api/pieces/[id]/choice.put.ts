import { choose } from '../../../services/plan/choose'

export default route('PUT /api/pieces/:id/choice', async ({ id, body, person }) =>
  choose(id(), body, person, await now()),
)

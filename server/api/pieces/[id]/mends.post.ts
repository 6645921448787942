import { mendPlan } from '../../../services/planEdits'

export default route('POST /api/pieces/:id/mends', async ({ id, body, person }) =>
  mendPlan(id(), body, person, await now()),
)

import { mendPlan } from '../../../services/plan/edits'

export default route('POST /api/pieces/:id/mends', async ({ id, body, person }) =>
  mendPlan(id(), body, person, await now()),
)

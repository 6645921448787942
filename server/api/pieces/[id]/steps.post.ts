import { addStep } from '../../../services/plan/edits'

export default route('POST /api/pieces/:id/steps', async ({ id, body, person }) =>
  addStep(id(), body, person, await now()),
)

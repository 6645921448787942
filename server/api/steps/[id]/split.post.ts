import { splitStep } from '../../../services/plan/edits'

export default route('POST /api/steps/:id/split', async ({ id, body, person }) =>
  splitStep(id(), body, person, await now()),
)

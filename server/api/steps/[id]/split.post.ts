import { splitStep } from '../../../services/planEdits'

export default route('POST /api/steps/:id/split', async ({ id, body, person }) =>
  splitStep(id(), body, person, await now()),
)

import { changeStep } from '../../services/plan/edits'

export default route('PATCH /api/steps/:id', async ({ id, body, person }) =>
  changeStep(id(), body, person, await now()),
)

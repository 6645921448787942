import { stepBack } from '../../../services/plan/edits'

export default route('POST /api/pieces/:id/plan-back', async ({ id, body, person }) =>
  stepBack(id(), body.which, person, await now()),
)

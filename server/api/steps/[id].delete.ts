import { removeStep } from '../../services/plan/edits'

export default route('DELETE /api/steps/:id', async ({ id, query, person }) =>
  removeStep(id(), query.rowVersion, person, await now()),
)

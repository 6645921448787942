import { unmend } from '../../../services/diagnosis/faults'

export default route('DELETE /api/faults/:id/mend', async ({ id, query, person }) =>
  unmend(id(), query.rowVersion, person, await now()),
)

import { drop } from '../../../services/diagnosis/faults'

export default route('DELETE /api/faults/:id', async ({ id, query, person }) =>
  drop(id(), query.rowVersion, person, await now()),
)

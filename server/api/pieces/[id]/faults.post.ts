import { see } from '../../../services/diagnosis/faults'

export default route('POST /api/pieces/:id/faults', async ({ id, body, person }) =>
  see(id(), body, person, await now()),
)

import { mind } from '../../../services/diagnosis/faults'

export default route('POST /api/pieces/:id/minded', async ({ id, body, person }) =>
  mind(id(), body, person, await now()),
)

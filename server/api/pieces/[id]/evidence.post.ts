import { addEvidence } from '../../../services/examination/record'

export default route('POST /api/pieces/:id/evidence', async ({ id, body, person }) =>
  addEvidence(id(), body, person, await now()),
)

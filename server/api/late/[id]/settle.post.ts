import { settleLate } from '../../../services/bench/settle'

export default route('POST /api/late/:id/settle', async ({ id, body, person }) =>
  settleLate(id(), body, person, await now()),
)

import { recallDrying } from '../../../services/store/dryTimes'

export default route('PUT /api/products/:id/dry-times', async ({ id, person }) =>
  recallDrying(id(), person, await now()),
)

import { forgetDrying } from '../../../services/store/dryTimes'

export default route('DELETE /api/products/:id/dry-times', async ({ id, person }) =>
  forgetDrying(id(), person, await now()),
)

import { compose } from '../../../services/plan/compose'

export default route('PUT /api/pieces/:id/build-up', async ({ id, body, person }) =>
  compose(id(), body, person, await now()),
)

import { changeTablet } from '../../services/shop/tablets'

export default route('PATCH /api/tablets/:id', async ({ id, body, person }) =>
  changeTablet(id(), body, person, await now()),
)

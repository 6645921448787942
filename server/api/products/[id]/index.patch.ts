import { changeProduct } from '../../../services/store/store'

export default route('PATCH /api/products/:id', async ({ id, body, person }) =>
  changeProduct(id(), body, person, await now()),
)

import { changeLabel } from '../../../services/store/labels'

export default route('POST /api/products/:id/label', async ({ id, body, person }) =>
  changeLabel(id(), body, person, await now()),
)

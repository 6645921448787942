import { quote } from '../../../services/papers/quotation'

export default route('POST /api/pieces/:id/quotations', async ({ id, body, person }) =>
  quote(id(), body, person, await now()),
)

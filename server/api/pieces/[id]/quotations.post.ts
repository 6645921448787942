import { quote } from '../../../services/client/papers'

export default route('POST /api/pieces/:id/quotations', async ({ id, body, person }) =>
  quote(id(), body, person, await now()),
)

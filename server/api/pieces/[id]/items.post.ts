import { addItem } from '../../../services/items'

export default route('POST /api/pieces/:id/items', async ({ id, body, person }) =>
  addItem(id(), body, person, await now()),
)

import { addItem } from '../../../services/piece/items'

export default route('POST /api/pieces/:id/items', async ({ id, body, person }) =>
  addItem(id(), body, person, await now()),
)

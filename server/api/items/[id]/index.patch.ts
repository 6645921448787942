import { changeItem } from '../../../services/piece/items'

export default route('PATCH /api/items/:id', async ({ id, body, person }) =>
  changeItem(id(), body, person, await now()),
)

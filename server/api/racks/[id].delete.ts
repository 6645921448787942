import { removeRack } from '../../services/shop/rooms'

export default route('DELETE /api/racks/:id', async ({ id, person }) => removeRack(id(), person, await now()))

import { removeRoom } from '../../services/shop/rooms'

export default route('DELETE /api/rooms/:id', async ({ id, person }) => removeRoom(id(), person, await now()))

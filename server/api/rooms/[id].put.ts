import { changeRoom } from '../../services/shop/rooms'

export default route('PUT /api/rooms/:id', async ({ id, body, person }) => changeRoom(id(), body, person, await now()))

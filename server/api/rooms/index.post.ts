import { addRoom } from '../../services/shop/rooms'

export default route('POST /api/rooms', async ({ body, person }) => addRoom(body, person, await now()))

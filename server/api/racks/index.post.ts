import { addRack } from '../../services/shop/rooms'

export default route('POST /api/racks', async ({ body, person }) => addRack(body, person, await now()))

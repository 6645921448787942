import { roomsPage } from '../../services/shop/roomsPage'

export default route('GET /api/rooms', async () => roomsPage(await now()))

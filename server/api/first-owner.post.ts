import { firstOwner } from '../services/shop/people'

export default route('POST /api/first-owner', async ({ event, body }) => firstOwner(event, body, await now()))

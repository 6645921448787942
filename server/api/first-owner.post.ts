import { firstOwner } from '../services/people'

export default route('POST /api/first-owner', async ({ event, body }) => firstOwner(event, body, await now()))

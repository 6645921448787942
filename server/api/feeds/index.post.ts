import { makeFeed } from '../../services/schedule/feeds'

export default route('POST /api/feeds', async ({ body, person }) => makeFeed(body, person, await now()))

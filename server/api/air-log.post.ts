import { addAirLog } from '../services/shop/air'

export default route('POST /api/air-log', async ({ body, person }) => addAirLog(body, person, await now()))

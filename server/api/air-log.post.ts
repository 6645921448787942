import { addAirLog } from '../services/shop'

export default route('POST /api/air-log', async ({ body, person }) => addAirLog(body.text, person, await now()))

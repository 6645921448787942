import { acknowledge } from '../services/bench/alarms'

export default route('POST /api/alarms', async ({ body, person }) => acknowledge(body, person, await now()))

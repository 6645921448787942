import { acknowledge } from '../services/bench'

export default route('POST /api/alarms', async ({ body, person }) => acknowledge(body, person, await now()))

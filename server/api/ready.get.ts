import { readReady } from '../services/client/houseRules'

export default route('GET /api/ready', async () => readReady())

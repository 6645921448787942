import { actAtBench } from '../services/bench/acts'

export default route('POST /api/bench', async ({ body, person }) => actAtBench(body, person, await now()))

import { readIn } from '../../services/lists/readIn'

export default route('POST /api/lists/read', async ({ body, person }) => readIn(body, person, await now()))

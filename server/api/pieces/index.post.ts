import { takeIn } from '../../services/piece/pieces'

export default route('POST /api/pieces', async ({ body, person }) => takeIn(body, person, await now()))

import { nameLate } from '../../services/bench/settle'

export default route('POST /api/late/names', async ({ body, person }) => nameLate(body, person, await now()))

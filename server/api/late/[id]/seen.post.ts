import { seeLate } from '../../../services/bench/settle'

export default route('POST /api/late/:id/seen', async ({ id }) => seeLate(id(), await now()))

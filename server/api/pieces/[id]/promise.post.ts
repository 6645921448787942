import { promiseHelp } from '../../../services/schedule/promise'

export default route('POST /api/pieces/:id/promise', async ({ id, body }) => promiseHelp(id(), body, await now()))

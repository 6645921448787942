import { tryPin } from '../../../services/schedule/whatIf'

export default route('POST /api/steps/:id/pin', async ({ id, body }) => tryPin(id(), body, await now()))

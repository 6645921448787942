import { unpinStep } from '../../../services/schedule/pins'

export default route('DELETE /api/steps/:id/pin', async ({ id, person }) => unpinStep(id(), person, await now()))

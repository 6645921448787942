import { pinStep } from '../../../services/schedule/pins'

export default route('PUT /api/steps/:id/pin', async ({ id, body, person }) => pinStep(id(), body, person, await now()))

import { say } from '../../../services/diagnosis/faults'

export default route('PUT /api/faults/:id/said', async ({ id, body, person }) => say(id(), body, person, await now()))

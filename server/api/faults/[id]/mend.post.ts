import { mend } from '../../../services/diagnosis/faults'

export default route('POST /api/faults/:id/mend', async ({ id, body, person }) => mend(id(), body, person, await now()))

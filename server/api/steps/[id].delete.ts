import { removeStep } from '../../services/plans'

export default route('DELETE /api/steps/:id', async ({ id, query, person }) => removeStep(id(), query.rowVersion, person, await now()))

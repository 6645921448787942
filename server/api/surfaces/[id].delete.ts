import { forgetSurface } from '../../services/plan/known'

export default route('DELETE /api/surfaces/:id', async ({ id, person }) => forgetSurface(id(), person, await now()))

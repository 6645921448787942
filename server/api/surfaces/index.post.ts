import { keepSurface } from '../../services/plan/known'

export default route('POST /api/surfaces', async ({ body, person }) => keepSurface(body, person, await now()))

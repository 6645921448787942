import { knownPage } from '../../services/plan/known'

export default route('GET /api/surfaces', async () => knownPage())

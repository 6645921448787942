import { learn } from '../../services/colour'

export default route('POST /api/colourants/learn', async ({ body, person }) => learn(body, person, await now()))

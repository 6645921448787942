import { learn } from '../../services/colour/colourants'

export default route('POST /api/colourants/learn', async ({ body, person }) => learn(body, person, await now()))

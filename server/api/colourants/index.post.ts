import { addColourant } from '../../services/colour/colourants'

export default route('POST /api/colourants', async ({ body, person }) => addColourant(body, person, await now()))

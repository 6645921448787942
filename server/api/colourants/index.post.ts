import { addColourant } from '../../services/colour'

export default route('POST /api/colourants', async ({ body, person }) => addColourant(body, person, await now()))

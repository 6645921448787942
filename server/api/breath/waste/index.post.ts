import { handIn } from '../../../services/breath/waste'

export default route('POST /api/breath/waste', async ({ body, person }) => handIn(body, person, await now()))

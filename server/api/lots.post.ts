import { addLot } from '../services/store/lots'

export default route('POST /api/lots', async ({ body, person }) => addLot(body, person, await now()))

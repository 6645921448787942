import { addLot } from '../services/store/store'

export default route('POST /api/lots', async ({ body, person }) => addLot(body, person, await now()))

import { addReading } from '../../services/colour'

export default route('POST /api/readings', async ({ body, person }) => addReading(body, person, await now()))

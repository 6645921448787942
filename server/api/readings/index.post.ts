import { addReading } from '../../services/colour/readings'

export default route('POST /api/readings', async ({ body, person }) => addReading(body, person, await now()))

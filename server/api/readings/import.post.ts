import { importReadings } from '../../services/colour/readings'

export default route('POST /api/readings/import', async ({ body, person }) => importReadings(body, person, await now()))

import { measureReading } from '../../services/colour/readings'

export default route('POST /api/readings/measure', async ({ body, person }) =>
  measureReading(body, person, await now()),
)

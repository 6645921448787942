import { measureReading } from '../../services/colour'

export default route('POST /api/readings/measure', async ({ body, person }) =>
  measureReading(body, person, await now()),
)

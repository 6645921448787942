import { withdrawReading } from '../../services/colour'

export default route('DELETE /api/readings/:id', async ({ id, person }) => withdrawReading(id(), person, await now()))

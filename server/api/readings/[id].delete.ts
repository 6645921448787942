import { withdrawReading } from '../../services/colour/readings'

export default route('DELETE /api/readings/:id', async ({ id, person }) => withdrawReading(id(), person, await now()))

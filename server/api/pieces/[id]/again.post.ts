import { comesBack } from '../../../services/piece/again'

export default route('POST /api/pieces/:id/again', async ({ id, person }) => comesBack(id(), person, await now()))

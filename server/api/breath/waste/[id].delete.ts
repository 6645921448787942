import { takeBackWaste } from '../../../services/breath/waste'

export default route('DELETE /api/breath/waste/:id', async ({ id, person }) => takeBackWaste(id(), person, await now()))

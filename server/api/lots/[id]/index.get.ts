import { lotPage } from '../../../services/store/lots'

export default route('GET /api/lots/:id', async ({ id }) => lotPage(id(), await now()))

import { changeLimit } from '../../services/breath/limits'

export default route('PUT /api/breath/limits', async ({ body, person }) => changeLimit(body, person, await now()))

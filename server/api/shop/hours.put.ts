import { changeHours } from '../../services/shop/hours'

export default route('PUT /api/shop/hours', async ({ body, person }) => changeHours(body, person, await now()))

import { changeShop } from '../services/shop'

export default route('PUT /api/shop', async ({ body, person }) => changeShop(body, person, await now()))

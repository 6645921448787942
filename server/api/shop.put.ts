import { changeShop } from '../services/shop/page'

export default route('PUT /api/shop', async ({ body, person }) => changeShop(body, person, await now()))

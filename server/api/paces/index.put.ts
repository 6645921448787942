import { recallPaces } from '../../services/shop/paces'

export default route('PUT /api/paces', async ({ body, person }) => recallPaces(body.from, person, await now()))

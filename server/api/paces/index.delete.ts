import { forgetPaces } from '../../services/shop/paces'

export default route('DELETE /api/paces', async ({ person }) => forgetPaces(person, await now()))

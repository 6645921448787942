import { importProducts } from '../../services/store/import'

export default route('POST /api/products/import', async ({ body, person }) => importProducts(body, person, await now()))

import { addProduct } from '../services/store'

export default route('POST /api/products', async ({ body, person }) => addProduct(body, person, await now()))

import { addProduct } from '../services/store/store'

export default route('POST /api/products', async ({ body, person }) => addProduct(body, person, await now()))

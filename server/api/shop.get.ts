import { shopPage } from '../services/shop/page'

export default route('GET /api/shop', () => shopPage())

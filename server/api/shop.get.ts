import { shopPage } from '../services/shop'

export default route('GET /api/shop', () => shopPage())

import { lanPage } from '../../services/shop/lan'

export default route('GET /api/lan', () => lanPage())

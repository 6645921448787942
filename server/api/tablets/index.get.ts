import { listTablets } from '../../services/shop/tablets'

export default route('GET /api/tablets', () => listTablets())

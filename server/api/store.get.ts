import { storePage } from '../services/store'

export default route('GET /api/store', () => storePage())

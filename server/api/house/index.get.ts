import { housePage } from '../../services/house'

export default route('GET /api/house', () => housePage())

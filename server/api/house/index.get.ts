import { housePage } from '../../services/plan/house'

export default route('GET /api/house', () => housePage())

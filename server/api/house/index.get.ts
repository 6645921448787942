import { readHouse } from '../../services/house'

export default route('GET /api/house', () => readHouse())

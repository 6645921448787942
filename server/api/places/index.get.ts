import { listPlaces } from '../../services/piece/items'

export default route('GET /api/places', () => listPlaces())

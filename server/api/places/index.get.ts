import { listPlaces } from '../../services/items'

export default route('GET /api/places', () => listPlaces())

import { placePage } from '../../../services/piece/items'

export default route('GET /api/places/:code', ({ param }) => placePage(param('code')))

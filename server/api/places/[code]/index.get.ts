import { placePage } from '../../../services/items'

export default route('GET /api/places/:code', ({ param }) => placePage(param('code')))

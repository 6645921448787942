import { prove } from '../../services/shop/door'

export default route('POST /api/session/proof', ({ event, body, person }) => prove(event, body, person))

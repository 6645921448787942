import { tap } from '../../services/shop/door'

export default route('POST /api/session/tap', ({ event, body }) => tap(event, body))

import { signIn } from '../../services/shop/door'

export default route('POST /api/session', ({ event, body }) => signIn(event, body))

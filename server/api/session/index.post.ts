import { signIn } from '../../services/people'

export default route('POST /api/session', ({ event, body }) => signIn(event, body))

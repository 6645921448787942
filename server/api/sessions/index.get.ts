import { listSessions } from '../../services/shop/sessions'

export default route('GET /api/sessions', ({ person }) => listSessions(person))

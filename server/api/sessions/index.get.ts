import { listSessions } from '../../services/sessions'

export default route('GET /api/sessions', ({ person }) => listSessions(person))

import { find } from '../services/platform/find'

export default route('GET /api/find', ({ query }) => find(query.q))

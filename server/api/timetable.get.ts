import { timetablePage } from '../services/schedule/page'

export default route('GET /api/timetable', async ({ query }) => timetablePage(query, await now()))

import { timetablePage } from '../services/now'

export default route('GET /api/timetable', async () => timetablePage(await now()))

import { timetablePage } from '../services/bench/now'

export default route('GET /api/timetable', async () => timetablePage(await now()))

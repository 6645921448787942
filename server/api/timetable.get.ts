import { timetablePage } from '../services/bench/timetable'

export default route('GET /api/timetable', async () => timetablePage(await now()))

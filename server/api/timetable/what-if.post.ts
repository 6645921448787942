import { whatIf } from '../../services/schedule/whatIf'

export default route('POST /api/timetable/what-if', async ({ body }) => whatIf(body, await now()))

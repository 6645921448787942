import { takeChange } from '../../services/schedule/whatIf'

export default route('POST /api/timetable/take', async ({ body, person }) => takeChange(body, person, await now()))

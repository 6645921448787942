import { exportWeek } from '../../services/schedule/feeds'

export default route('GET /api/timetable/week', async ({ event, query }) => {
  const text = await exportWeek(query, await now())
  setHeader(event, 'content-type', 'text/csv; charset=utf-8')
  setHeader(event, 'content-disposition', 'attachment; filename="timetable.csv"')
  return text
})

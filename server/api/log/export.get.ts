import { exportLog } from '../../services/bench/log'

export default route('GET /api/log/export', async ({ event, query }) => {
  const text = await exportLog(query, await now())
  setHeader(event, 'content-type', 'text/csv; charset=utf-8')
  setHeader(event, 'content-disposition', 'attachment; filename="log.csv"')
  return text
})

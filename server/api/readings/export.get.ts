import { exportReadings } from '../../services/colour/readings'

export default route('GET /api/readings/export', async ({ event, query }) => {
  const text = await exportReadings(query, await now())
  setHeader(event, 'content-type', query.format === 'csv' ? 'text/csv; charset=utf-8' : 'text/plain; charset=utf-8')
  setHeader(event, 'content-disposition', `attachment; filename="readings.${query.format === 'csv' ? 'csv' : 'txt'}"`)
  return text
})

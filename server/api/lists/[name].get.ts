import { listCsv } from '../../services/lists/csv'

export default route('GET /api/lists/:name', async ({ event, param, query, person }) => {
  const text = await listCsv(param('name'), query.decimal, person)
  setHeader(event, 'content-type', 'text/csv; charset=utf-8')
  setHeader(event, 'content-disposition', `attachment; filename="${param('name')}.csv"`)
  return text
})

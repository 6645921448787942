import { recordCsv } from '../../services/record/record'

export default route('GET /api/record/list', async ({ event, query, person }) => {
  const text = await recordCsv(query, person, await now())
  setHeader(event, 'content-type', 'text/csv; charset=utf-8')
  setHeader(event, 'content-disposition', `attachment; filename="${query.ask}.csv"`)
  return text
})

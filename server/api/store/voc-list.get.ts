import { vocCsv } from '../../services/breath/voc'

export default route('GET /api/store/voc-list', async ({ event }) => {
  const text = await vocCsv()
  setHeader(event, 'content-type', 'text/csv; charset=utf-8')
  setHeader(event, 'content-disposition', 'attachment; filename="voc.csv"')
  return text
})

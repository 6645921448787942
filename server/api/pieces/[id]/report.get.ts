import { reportFile } from '../../../services/examination/reports'

export default route('GET /api/pieces/:id/report', async ({ event, id, query, person }) => {
  const { name, type, data } = await reportFile(id(), query, person, await now())
  setHeader(event, 'content-type', type)
  setHeader(event, 'content-disposition', `inline; filename="${name}"`)
  return data
})

import { potLabel } from '../../../services/platform/labels'

export default route('GET /api/batches/:id/label', async ({ event, id }) => {
  const pdf = await potLabel(id())
  setHeader(event, 'content-type', 'application/pdf')
  return pdf
})

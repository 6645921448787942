import { placeLabel } from '../../../services/platform/labels'

export default route('GET /api/places/:code/label', async ({ event, param }) => {
  const pdf = await placeLabel(param('code'))
  setHeader(event, 'content-type', 'application/pdf')
  return pdf
})

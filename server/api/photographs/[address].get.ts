import { readPhotograph } from '../../services/piece/photographs'

export default route('GET /api/photographs/:address', async ({ event, param, query }) => {
  const data = await readPhotograph(param('address'), query.size)
  setHeader(event, 'content-type', 'image/jpeg')
  setHeader(event, 'cache-control', 'private, max-age=31536000, immutable')
  return data
})

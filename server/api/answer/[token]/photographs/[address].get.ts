import { clientPicture } from '../../../../services/client/page'

export default route('GET /api/answer/:token/photographs/:address', async ({ event, param, query }) => {
  const data = await clientPicture(param('token'), param('address'), query.size, await now())
  setHeader(event, 'content-type', 'image/jpeg')
  setHeader(event, 'cache-control', 'private, max-age=3600')
  return data
})

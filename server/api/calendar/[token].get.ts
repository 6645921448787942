import { readFeed } from '../../services/schedule/feeds'

export default route('GET /api/calendar/:token', async ({ event, param }) => {
  const text = await readFeed(param('token'), await now())
  setHeader(event, 'content-type', 'text/calendar; charset=utf-8')
  setHeader(event, 'x-robots-tag', 'noindex')
  return text
})

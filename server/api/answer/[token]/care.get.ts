import { linkOf } from '../../../services/client/links'
import { careFile } from '../../../services/papers/care'
import { db } from '../../../database/db'

export default route('GET /api/answer/:token/care', async ({ event, param, query }) => {
  const { piece_id } = await linkOf(db(), param('token'), await now())
  return sendPdf(event, await careFile(piece_id, query.size, await now()))
})

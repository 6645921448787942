import { linkOf } from '../../../../services/client/links'
import { quotationFile } from '../../../../services/papers/quotation'
import { db } from '../../../../database/db'

export default route('GET /api/answer/:token/quotations/:id', async ({ event, id, param, query }) => {
  const { piece_id } = await linkOf(db(), param('token'), await now())
  return sendPdf(event, await quotationFile(id(), query.size, piece_id))
})

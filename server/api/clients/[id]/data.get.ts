import { personData } from '../../../services/client/privacy'

export default route('GET /api/clients/:id/data', async ({ event, id }) => {
  setHeader(event, 'content-type', 'application/json; charset=utf-8')
  setHeader(event, 'content-disposition', `attachment; filename="client-${id()}.json"`)
  return personData(id(), await now())
})

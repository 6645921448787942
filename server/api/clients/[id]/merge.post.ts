import { mergeClients } from '../../../services/client/record'

export default route('POST /api/clients/:id/merge', async ({ id, body, person }) =>
  mergeClients(id(), body, person, await now()),
)

import { changeClient } from '../../../services/client/record'

export default route('PATCH /api/clients/:id', async ({ id, body, person }) =>
  changeClient(id(), body, person, await now()),
)

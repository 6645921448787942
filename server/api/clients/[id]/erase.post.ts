import { eraseClient } from '../../../services/client/privacy'

export default route('POST /api/clients/:id/erase', async ({ id, body, person }) =>
  eraseClient(id(), body.rowVersion, person, await now()),
)

import { tellReady } from '../../../services/client/houseRules'

export default route('POST /api/pieces/:id/told', async ({ id, body, person }) =>
  tellReady(id(), body, person, await now()),
)

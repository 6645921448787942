import { takeDeposit } from '../../../services/client/houseRules'

export default route('PUT /api/pieces/:id/deposit', async ({ id, body, person }) =>
  takeDeposit(id(), body, person, await now()),
)

import { overrule } from '../../../services/plans'

export default route('POST /api/pieces/:id/overrules', async ({ id, body, person }) =>
  overrule(id(), body, person, await now()),
)

import { overrule } from '../../../services/plan/page'

export default route('POST /api/pieces/:id/overrules', async ({ id, body, person }) =>
  overrule(id(), body, person, await now()),
)

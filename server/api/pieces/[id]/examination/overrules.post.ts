import { overruleExamination } from '../../../../services/examination'

export default route('POST /api/pieces/:id/examination/overrules', async ({ id, body, person }) =>
  overruleExamination(id(), body, person, await now()),
)

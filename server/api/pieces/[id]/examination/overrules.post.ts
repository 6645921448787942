import { overruleExamination } from '../../../../services/examination/page'

export default route('POST /api/pieces/:id/examination/overrules', async ({ id, body, person }) =>
  overruleExamination(id(), body, person, await now()),
)

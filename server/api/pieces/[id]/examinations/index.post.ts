import { saveExamination } from '../../../../services/examination/reports'

export default route('POST /api/pieces/:id/examinations', async ({ id, body, person }) =>
  saveExamination(id(), body, person, await now()),
)

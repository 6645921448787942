import { saveExamination } from '../../../../services/reports'

export default route('POST /api/pieces/:id/examinations', async ({ id, body, person }) =>
  saveExamination(id(), body, person, await now()),
)

import { examinationPage } from '../../../../services/examination'

export default route('GET /api/pieces/:id/examination', async ({ id, person }) =>
  examinationPage(id(), person, await now()),
)

import { examinationPage } from '../../../../services/examination/page'

export default route('GET /api/pieces/:id/examination', async ({ id, person }) =>
  examinationPage(id(), person, await now()),
)

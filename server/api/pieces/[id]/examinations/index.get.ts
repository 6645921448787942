import { listExaminations } from '../../../../services/examination/reports'

export default route('GET /api/pieces/:id/examinations', ({ id }) => listExaminations(id()))

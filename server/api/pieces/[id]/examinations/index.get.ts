import { listExaminations } from '../../../../services/reports'

export default route('GET /api/pieces/:id/examinations', ({ id }) => listExaminations(id()))

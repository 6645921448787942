import { grade } from '../../services/diagnosis/faults'

export default route('PUT /api/faults/grades', async ({ body }) => grade(body))

import { learntPage } from '../../services/diagnosis/page'

export default route('GET /api/faults', async ({ person }) => learntPage(person.id))

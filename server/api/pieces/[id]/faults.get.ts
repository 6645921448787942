import { faultsPage } from '../../../services/diagnosis/page'

export default route('GET /api/pieces/:id/faults', async ({ id }) => faultsPage(id()))

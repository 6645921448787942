import { clientPage } from '../../../services/client/record'

export default route('GET /api/clients/:id', ({ id }) => clientPage(id()))

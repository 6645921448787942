import { findClients } from '../../services/client/record'

export default route('GET /api/clients', ({ query }) => findClients(query))

import { promisePart } from '../../../services/schedule/promise'

export default route('GET /api/pieces/:id/promise', async ({ id, query }) => promisePart(id(), query, await now()))

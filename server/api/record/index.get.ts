import { recordPage } from '../../services/record/record'

export default route('GET /api/record', async ({ query, person }) => recordPage(query, person, await now()))

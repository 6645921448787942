import { endById } from '../../services/shop/people'

export default route('DELETE /api/sessions/:id', async ({ param, person }) => endById(param('id'), person, await now()))

import { endById } from '../../services/people'

export default route('DELETE /api/sessions/:id', async ({ param, person }) => endById(param('id'), person, await now()))

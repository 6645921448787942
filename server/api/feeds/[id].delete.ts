import { dropFeed } from '../../services/schedule/feeds'

export default route('DELETE /api/feeds/:id', async ({ id, person }) => dropFeed(id(), person, await now()))

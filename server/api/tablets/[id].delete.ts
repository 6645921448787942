import { takeBackTablet } from '../../services/shop/tablets'

export default route('DELETE /api/tablets/:id', async ({ id, person }) => takeBackTablet(id(), person, await now()))

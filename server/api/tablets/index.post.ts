import { registerTablet } from '../../services/shop/tablets'

export default route('POST /api/tablets', async ({ event, body, person }) =>
  registerTablet(event, body, person, await now()),
)

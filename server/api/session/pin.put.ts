import { choosePin } from '../../services/shop/door'

export default route('PUT /api/session/pin', async ({ event, body, person }) =>
  choosePin(event, body, person, await now()),
)

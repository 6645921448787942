import { actOnLot } from '../../../services/store/lots'

export default route('POST /api/lots/:id/acts', async ({ id, body, person }) =>
  actOnLot(id(), body, person, await now()),
)

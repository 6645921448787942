import { lookedFor } from '../../services/breath/ignition'

export default route('PUT /api/care/looked', async ({ body, person }) =>
  lookedFor(body.roomId, body.undo, person, await now()),
)

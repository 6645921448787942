import { leaveFound, takeFound } from '../../../services/plan/found'

export default route('POST /api/pieces/:id/found', async ({ id, body, person }) =>
  body.take ? takeFound(id(), body.rowVersion, person, await now()) : leaveFound(id(), person, await now()),
)

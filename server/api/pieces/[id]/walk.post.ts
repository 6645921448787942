import { answerWalk } from '../../../services/examination/record'

export default route('POST /api/pieces/:id/walk', async ({ id, body, person }) =>
  answerWalk(id(), body, person, await now()),
)

import { askAboutBand } from '../../../services/colour/bands'

export default route('POST /api/bands/:id/question', async ({ id, body, person }) =>
  askAboutBand(id(), body, person, await now()),
)

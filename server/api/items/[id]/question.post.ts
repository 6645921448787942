import { askAboutItem } from '../../../services/client/itemQuestions'

export default route('POST /api/items/:id/question', async ({ id, body, person }) =>
  askAboutItem(id(), body, person, await now()),
)

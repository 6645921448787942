import { changeLetterWords } from '../../services/platform/letterWords'

export default route('PUT /api/shop/letters', async ({ body, person }) => changeLetterWords(body, person, await now()))

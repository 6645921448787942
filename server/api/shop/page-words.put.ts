import { changePageWords } from '../../services/platform/letterWords'

export default route('PUT /api/shop/page-words', async ({ body, person }) => changePageWords(body, person, await now()))

import { changeRight } from '../services/shop/rights'

export default route('PUT /api/rights', async ({ body, person }) => changeRight(body, person, await now()))

import { changeQuoting } from '../../services/client/houseRules'

export default route('PUT /api/shop/quoting', async ({ body, person }) => changeQuoting(body, person, await now()))

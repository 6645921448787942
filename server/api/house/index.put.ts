import { changeHouse } from '../../services/plan/house'

export default route('PUT /api/house', async ({ body, person }) => changeHouse(body, person, await now()))

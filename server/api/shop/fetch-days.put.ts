import { changeFetchDays } from '../../services/shop/rooms'

export default route('PUT /api/shop/fetch-days', async ({ body, person }) => changeFetchDays(body, person, await now()))

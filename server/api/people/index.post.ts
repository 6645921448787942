import { addPerson } from '../../services/shop/people'

export default route('POST /api/people', async ({ body, person }) => addPerson(body, person, await now()))

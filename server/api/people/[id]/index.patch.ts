import { changePerson } from '../../../services/shop/people'

export default route('PATCH /api/people/:id', async ({ id, body, person }) =>
  changePerson(id(), body, person, await now()),
)

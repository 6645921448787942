import { changePerson } from '../../services/people'

export default route('PATCH /api/people/:id', ({ id, body, person }) => changePerson(id(), body, person))

import { withdrawLicence } from '../../services/shop/licences'

export default route('DELETE /api/licences/:id', async ({ id, person }) => withdrawLicence(id(), person, await now()))

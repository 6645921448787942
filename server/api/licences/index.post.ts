import { addLicence } from '../../services/shop/licences'

export default route('POST /api/licences', async ({ body, person }) => addLicence(body, person, await now()))

import { sayRags } from '../../services/breath/rags'

export default route('PUT /api/care/rags', async ({ body, person }) => sayRags(body, person, await now()))

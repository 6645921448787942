import { enquire } from '../../services/piece/enquiry'

export default route('POST /api/enquiries', async ({ body, person }) => enquire(body, person, await now()))

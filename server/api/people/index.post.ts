import { transaction } from '../../database/db'
import { addPerson } from '../../services/people'

export default route('POST /api/people', async ({ body }) => ({ id: await transaction(tx => addPerson(tx, body)) }))

import { changeVocYear } from '../../services/breath/limits'

export default route('PUT /api/breath/voc', async ({ body, person }) => changeVocYear(body, person, await now()))

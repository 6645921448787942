import { fitCartridge } from '../../../services/breath/masks'

export default route('POST /api/breath/cartridges', async ({ body, person }) => fitCartridge(body, person, await now()))

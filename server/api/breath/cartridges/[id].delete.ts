import { unfitCartridge } from '../../../services/breath/masks'

export default route('DELETE /api/breath/cartridges/:id', async ({ id, person }) =>
  unfitCartridge(id(), person, await now()),
)

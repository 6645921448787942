import { limitsPage } from '../../services/breath/limits'
import { readMasks } from '../../services/breath/masks'
import { wastePage } from '../../services/breath/waste'

export default route('GET /api/breath', async ({ person }) => {
  const at = await now()
  return { ...(await limitsPage()), ...(await wastePage()), masks: await readMasks(person, at) }
})

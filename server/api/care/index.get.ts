import { readUnlooked } from '../../services/breath/ignition'
import { readMasks } from '../../services/breath/masks'
import { ragsPage } from '../../services/breath/rags'

export default route('GET /api/care', async ({ person }) => {
  const at = await now()
  const mine = (await readMasks(person, at)).find(m => m.mine)
  return { rags: await ragsPage(at), mask: mine?.fitted ?? null, unlooked: await readUnlooked(at) }
})

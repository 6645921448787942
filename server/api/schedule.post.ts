import { solveNow } from '../services/schedule/solve'

export default route('POST /api/schedule', async () => {
  await solveNow(await now())
  return { ok: true }
})

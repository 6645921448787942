import { db } from '../database/db'

export default route('GET /api/health', async () => ({
  ok: (await db().row<{ one: number }>('SELECT 1 AS one'))?.one === 1,
}))

import { db } from '../../database/db'
import { publicPerson } from '../../services/shop/person'

export default route('GET /api/session', async ({ person }) => {
  const shop = await db().row<{ name: string; currency: string; zone: string; length_unit: 'mm' | 'in' }>(
    'SELECT name, currency, zone, length_unit FROM shop WHERE id = 1',
  )
  return { person: person ? publicPerson(person) : null, shop, mode: useRuntimeConfig().mode }
})

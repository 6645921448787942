import { db } from '../../database/db'
import { publicPerson } from '../../services/shop/person'
import { currentTablet } from '../../services/shop/sessions'
import { peopleAtDoor } from '../../services/shop/tablets'

export default route('GET /api/session', async ({ event, person }) => {
  const shop = await db().row<{
    name: string
    currency: string
    zone: string
    length_unit: 'mm' | 'in'
    temperature_unit: 'C' | 'F'
  }>('SELECT name, currency, zone, length_unit, temperature_unit FROM shop WHERE id = 1')
  const tablet = await currentTablet(event)
  return {
    person: person ? { ...publicPerson(person), rights: [...person.rights] } : null,
    tablet,
    people: tablet ? await peopleAtDoor() : [],
    shop,
    mode: useRuntimeConfig().mode,
  }
})

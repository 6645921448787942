/** Recipes and pots from a table: names of readings, products and recipes are looked up here. */
import { DateTime } from 'luxon'
import { type PotLine, readPots, readRecipes, type RecipeLine } from '#core/formats'
import { materialOf } from '#core/materials'
import { saveRecipe } from '#shared/colour'
import { readColourants } from '../colour/colourants'
import { judgedRecipe, keepRecipe } from '../colour/recipes'
import { refused } from '../colour/told'
import { readShop } from '../shop/rows'
import { eachOf, type Planned, type PlannedList, type Taking } from './planned'

const same = (a: string, b: string) => a.toLowerCase() === b.toLowerCase()
const NEAR = 0.01

/** What `work` refuses is said of its line. */
async function ofLine<T>(work: () => Promise<T>): Promise<T> {
  try {
    return await work()
  } catch (error) {
    const { statusCode, data, message } = error as Error & { statusCode?: number; data?: { message?: string } }
    if (statusCode !== undefined && statusCode < 500)
      throw new RangeError((data?.message ?? message).replace(/\.$/, ''), { cause: error })
    throw error
  }
}

/** A recipe is kept for ever: what differs from the one of its name is a new one. */
export async function planRecipes(text: string, { tx, person, at }: Taking): Promise<PlannedList> {
  const readings = await tx.rows<{ id: number; name: string; role: string }>(
    'SELECT id, name, role FROM reading WHERE withdrawn_at IS NULL ORDER BY id DESC',
  )
  const colourants = await readColourants(tx)
  const kept = await tx.rows<{
    id: number
    name: string
    coats: number
    wipe: string
    product_id: number
    pct: number
  }>(
    `SELECT recipe.id, recipe.name, recipe.coats, recipe.wipe, s.product_id, s.pct
        FROM recipe
        JOIN recipe_share s ON s.recipe_id = recipe.id`,
  )
  const reading = (name: string, role: 'wood' | 'target') => {
    const found = readings.filter(r => same(r.name, name))
    const one = found.find(r => r.role === role) ?? found[0]
    if (!one) throw new RangeError(`there is no reading "${name.slice(0, 60)}"; read it or take it from a file first`)
    return one.id
  }
  const colourant = (name: string) => {
    const one = colourants.find(k => same(k.name, name))
    if (!one) throw new RangeError(`"${name.slice(0, 60)}" is no colourant here; measure a band of it first`)
    return one.product_id
  }
  const isKept = (line: RecipeLine, shares: readonly { id: number; pct: number }[]) => {
    const rows = kept.filter(k => same(k.name, line.name) && k.coats === line.coats && k.wipe === line.wipe)
    const ids = [...new Set(rows.map(k => k.id))]
    return ids.some(id => {
      const its = rows.filter(k => k.id === id)
      return (
        its.length === shares.length &&
        shares.every(s => its.some(k => k.product_id === s.id && Math.abs(Number(k.pct) - s.pct) < NEAR))
      )
    })
  }
  return eachOf(
    refused(() => readRecipes(text)),
    async (line): Promise<Planned> => {
      const { line: _, wood, sapwood, target, clearCoat, shares, ...rest } = line
      const given = saveRecipe.safeParse({
        ...{
          ...rest,
          clearCoat: clearCoat || null,
          woodId: reading(wood, 'wood'),
          targetId: reading(target, 'target'),
        },
        sapwoodId: sapwood ? reading(sapwood, 'wood') : null,
        shares: shares.map(s => ({ id: colourant(s.colourant), pct: s.pct })),
      })
      if (!given.success) throw new RangeError(given.error.issues[0]!.message.replace(/\.$/, ''))
      if (isKept(line, given.data.shares)) return { name: line.name, what: [], take: () => Promise.resolve() }
      await ofLine(() => judgedRecipe(tx, given.data))
      return { name: line.name, what: null, take: () => keepRecipe(tx, given.data, person, at) }
    },
  )
}

interface KnownPot {
  id: number
  name: string
  mixed_at: Date | null
  left_g: number | null
  place: string
  closed_at: Date | null
}
/** A pot that is known is counted anew; one that was emptied stays away. */
export async function planPots(text: string, { tx, person, at }: Taking): Promise<PlannedList> {
  const { zone } = await readShop(tx)
  const known = await tx.rows<KnownPot>(
    'SELECT id, name, mixed_at, left_g, place, closed_at FROM batch ORDER BY id DESC FOR UPDATE',
  )
  const recipes = await tx.rows<{ id: number; name: string }>('SELECT id, name FROM recipe ORDER BY id DESC')
  const products = await tx.rows<{ id: number; name: string; class: string }>('SELECT id, name, class FROM product')
  const momentOf = (iso: string) => (iso ? DateTime.fromISO(iso, { zone }).toJSDate() : null)
  const minuteOf = (d: Date | null) => (d ? Math.floor(d.getTime() / 60_000) : null)
  const add = async (pot: PotLine, mixed: Date, left: number) => {
    const { id } = await tx.run(
      `INSERT INTO batch (name, recipe_id, smallest_g, pot_min, mixed_at, left_g, place, note, person_id, at)
          VALUES (:name, :recipeId, 0.1, :lasts, :mixed, :left, :place, :note, :by, :at)`,
      {
        ...{ name: pot.name, recipeId: recipes.find(r => same(r.name, pot.recipe))?.id ?? null, lasts: pot.lasts_min },
        ...{ mixed, left, place: pot.place, note: pot.note.slice(0, 500), by: person.id, at },
      },
    )
    for (const [position, c] of pot.contents.entries()) {
      const product = products.find(p => same(p.name, c.name))
      await tx.run(
        `INSERT INTO batch_line (batch_id, turn, position, name, class, product_id, density, wanted_g, poured_g)
            VALUES (:id, 0, :position, :name, :class, :productId, :density, :g, :g)`,
        {
          ...{ id, position, name: c.name, class: product?.class ?? null, productId: product?.id ?? null, g: c.g },
          density: c.density_g_ml ?? (product ? materialOf(product.class).density : 1),
        },
      )
    }
  }
  return eachOf(
    refused(() => readPots(text)),
    (pot): Planned => {
      const mixed = momentOf(pot.mixed)
      if (mixed && Number.isNaN(mixed.getTime())) throw new RangeError(`"${pot.mixed}" is no moment`)
      if (mixed && mixed > at) throw new RangeError('it was mixed later than now')
      const poured = pot.contents.reduce((sum, c) => sum + c.g, 0)
      if (pot.left_g !== null && pot.left_g > poured + NEAR)
        throw new RangeError(`${pot.left_g} g are left of ${Math.round(poured * 100) / 100} g that were poured`)
      if (pot.contents.length > 200) throw new RangeError('more than 200 things are in it')
      const was = known.find(
        k => same(k.name, pot.name) && (mixed ? minuteOf(k.mixed_at) === minuteOf(mixed) : !k.closed_at),
      )
      const nothing = { name: pot.name, what: [], take: () => Promise.resolve() }
      if (pot.emptied || was?.closed_at) return nothing
      if (!was) return { name: pot.name, what: null, take: () => add(pot, mixed ?? at, pot.left_g ?? poured) }
      const to = { left: pot.left_g ?? was.left_g, place: pot.place || was.place }
      return {
        name: pot.name,
        what: [...(to.left === was.left_g ? [] : ['left']), ...(to.place === was.place ? [] : ['place'])],
        take: () =>
          tx.run('UPDATE batch SET left_g = :left, place = :place, row_version = row_version + 1 WHERE id = :id', {
            ...to,
            id: was.id,
          }),
      }
    },
  )
}

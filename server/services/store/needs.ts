/** What open plans want by day, from which lot each step takes it, what is short when, and what to buy. */
import {
  allot,
  buyWithin,
  type Demand,
  eatenBy,
  nameOfClass,
  PRICED_BY,
  quantitySaid,
  type Short,
  type Unit,
  unitOf,
} from '#core/store'
import { sumOf } from '#core/units'
import { db } from '../../database/db'
import { readActive } from '../bench/active'
import { faceArea } from '../piece/rows'
import { LOTS, type LotRow, readAges, readKeeps } from './lots'

const dayOf = (at: Date) => at.toISOString().slice(0, 10)

/** When each planned step begins by the timetable; what it does not know is taken to be wanted now. */
async function readBegins(): Promise<Map<number, Date>> {
  const rows = await db().rows<{ step_id: number; start_at: Date }>(
    `SELECT step_id, MIN(start_at) AS start_at
        FROM schedule_step
        WHERE schedule_id = (SELECT MAX(id) FROM schedule)
        GROUP BY step_id`,
  )
  return new Map(rows.map(r => [r.step_id, r.start_at]))
}
interface PotLeft {
  piece_id: number
  class: string
  ml: number
  ends_at: Date | null
}
/** What pots hold for their pieces, by what they are mixed as, until their life ends. */
const readPots = async (): Promise<PotLeft[]> =>
  (
    await db().rows<PotLeft>(
      `SELECT batch.piece_id,
          COALESCE(recipe.class, (
            SELECT l.class FROM batch_line l WHERE l.batch_id = batch.id ORDER BY l.wanted_g DESC LIMIT 1
          )) AS class,
          batch.left_g / (
            SELECT SUM(l.wanted_g) / SUM(l.wanted_g / l.density) FROM batch_line l WHERE l.batch_id = batch.id
          ) AS ml,
          batch.mixed_at + INTERVAL batch.pot_min MINUTE AS ends_at
          FROM batch
          LEFT JOIN recipe ON recipe.id = batch.recipe_id
          WHERE batch.piece_id IS NOT NULL AND batch.closed_at IS NULL AND batch.left_g > 0
          ORDER BY batch.id`,
    )
  ).map(p => ({ ...p, ml: Number(p.ml) }))
/** Takes from the pots of a piece what they hold of it by then. @returns what is still wanted, ml */
function beyondPots(pots: PotLeft[], pieceId: number, of: string, amount: number, on: string): number {
  let wanted = amount
  for (const pot of pots) {
    if (pot.piece_id !== pieceId || pot.class !== of || (pot.ends_at && dayOf(pot.ends_at) < on)) continue
    const taken = Math.min(wanted, pot.ml)
    pot.ml -= taken
    wanted -= taken
  }
  return wanted
}
/** Of every step that is planned or in hand, of pieces in the shop; what a pot holds for it is not wanted again. */
async function readDemands(at: Date): Promise<Demand[]> {
  const { pieces } = await readActive()
  const pots = await readPots()
  const begins = await readBegins()
  const demands: Demand[] = []
  for (const { file, plan } of pieces) {
    for (const st of (plan?.steps ?? []).filter(x => x.state === 'planned' || x.state === 'running')) {
      const begin = begins.get(st.id)
      const on = dayOf(begin && begin > at ? begin : at)
      const m2 = sumOf(
        file.faces.filter(f => st.faces.includes(f.id)),
        faceArea,
      )
      const own = { pieceId: file.piece.id, on, grit: '', productId: null }
      const amount = st.product ? beyondPots(pots, file.piece.id, st.product, st.amount_ml ?? 0, on) : 0
      if (st.product && amount > 0)
        demands.push({
          ...{ ...own, key: `${st.id}`, set: `${file.piece.id} ${st.product}`, class: st.product },
          ...{ productId: st.productId, amount },
        })
      for (const e of eatenBy(st, m2))
        demands.push({
          ...{ ...own, key: `${st.id} ${e.slug} ${e.grit}`, set: `${file.piece.id} ${e.slug} ${e.grit}` },
          ...{ class: e.slug, grit: e.grit, amount: e.amount },
        })
    }
  }
  return demands
}

interface ProductRow {
  id: number
  name: string
  class: string
  unit: Unit
  grit: string
  supplier: string
  containers: string
  least: number
  price_minor: number
}
const sizesOf = ({ containers }: Pick<ProductRow, 'containers'>): number[] =>
  containers
    .split(',')
    .map(Number)
    .filter(n => n > 0)
/** The product that a shortage is bought as: the one that is named, else the first of its class and grit. */
const boughtAs = (products: readonly ProductRow[], of: Pick<Short, 'class' | 'grit' | 'productId'>) =>
  products.find(p => p.id === of.productId) ??
  products.find(p => p.class === of.class && (of.grit === '' || p.grit === of.grit)) ??
  null

interface Wanted {
  class: string
  grit: string
  product: ProductRow | null
  unit: Unit
  amount: number
  /** by day */
  days: { on: string; amount: number }[]
  /** the first day on which it is short */
  on: string
  pieces: number[]
  /** an older can holds some, but is over its time by then */
  overId: number | null
}
function shortages(short: readonly Short[], products: readonly ProductRow[]): Wanted[] {
  const sums = new Map<string, Wanted>()
  for (const s of short) {
    const product = boughtAs(products, s)
    const key = product ? `${product.id}` : `${s.class} ${s.grit}`
    const was = sums.get(key)
    sums.set(key, {
      ...{ class: s.class, grit: s.grit, product, unit: unitOf(s.class) },
      amount: (was?.amount ?? 0) + s.amount,
      days: [...(was?.days ?? []), { on: s.on, amount: s.amount }],
      on: was && was.on < s.on ? was.on : s.on,
      pieces: [...new Set([...(was?.pieces ?? []), s.pieceId])],
      overId: was?.overId ?? s.overId,
    })
  }
  return [...sums.values()]
}
/** What lies in the house after all plans, below the least that is kept there. */
function belowLeast(products: readonly ProductRow[], left: ReadonlyMap<number, number>, short: Wanted[], on: string) {
  for (const p of products.filter(x => x.least > 0)) {
    const missing = p.least - Math.max(0, left.get(p.id) ?? 0)
    if (missing <= 0) continue
    const own = short.find(s => s.product?.id === p.id)
    const days = [{ on, amount: missing }]
    if (own) Object.assign(own, { amount: own.amount + missing, days: [...own.days, ...days] })
    else
      short.push({
        ...{ class: p.class, grit: p.grit, product: p, unit: p.unit, amount: missing, days, on, pieces: [] },
        overId: null,
      })
  }
  return short
}

export async function needsPage(at: Date) {
  const demands = await readDemands(at)
  const lots = await db().rows<LotRow>(`${LOTS} WHERE lot.gone_at IS NULL AND lot.left_amount > 0`)
  const until = await readAges(db())
  const products = await db().rows<ProductRow>('SELECT * FROM product ORDER BY name')
  const { allotted, short } = allot(
    demands,
    lots.map(l => ({
      ...{ id: l.id, productId: l.product_id, class: l.class, grit: l.grit, amount: l.left_amount },
      ...{ until: until(l), opened: l.opened_on !== null, keptFor: l.kept_for },
    })),
  )
  const taken = (lot: number) =>
    sumOf(
      allotted.filter(a => a.lotId === lot),
      a => a.amount,
    )
  const left = new Map<number, number>()
  for (const l of lots) left.set(l.product_id, (left.get(l.product_id) ?? 0) + l.left_amount - taken(l.id))
  const keeps = await readKeeps(db())
  const wanted = belowLeast(products, left, shortages(short, products), dayOf(at))
  const classes = [...new Set(demands.map(d => `${d.class}|${d.grit}`))]
  return {
    needs: classes
      .map(key => {
        const [slug = '', grit = ''] = key.split('|')
        const its = demands.filter(d => d.class === slug && d.grit === grit)
        const missing = short.filter(s => s.class === slug && s.grit === grit)
        return {
          ...{ class: slug, name: nameOfClass(slug), grit, unit: unitOf(slug) },
          need: sumOf(its, d => d.amount),
          first: its.map(d => d.on).sort()[0]!,
          short: sumOf(missing, s => s.amount),
          shortOn: missing.map(s => s.on).sort()[0] ?? null,
          pieces: [...new Set(its.map(d => d.pieceId))],
        }
      })
      .sort((a, b) => Number(b.short > 0) - Number(a.short > 0) || a.first.localeCompare(b.first)),
    buy: wanted
      .map(w => {
        const { containers, total, later } = buyWithin(
          w.days,
          w.product ? sizesOf(w.product) : [],
          keeps(w.product ?? { id: 0, class: w.class }),
          dayOf(at),
        )
        const { price_minor = 0, supplier = '', name = nameOfClass(w.class), id = null } = w.product ?? {}
        return {
          ...{
            productId: id,
            name,
            grit: w.grit,
            supplier,
            unit: w.unit,
            amount: w.amount,
            on: w.on,
            pieces: w.pieces,
          },
          ...{ containers, total, later, overId: w.overId },
          price_minor: Math.round((total / PRICED_BY[w.unit]) * price_minor),
        }
      })
      .filter(b => b.total > 0)
      .sort((a, b) => a.supplier.localeCompare(b.supplier) || a.on.localeCompare(b.on)),
    allotted: allotted.map(a => ({ ...a, step: Number(a.key.split(' ')[0]) })),
  }
}
/** What the store says to one plan: short, only an old can, or one with a skin that it takes from. */
export async function pieceNeeds(id: number, at: Date) {
  const page = await needsPage(at)
  const short = page.buy
    .filter(b => b.pieces.includes(id))
    .map(({ name, grit, unit, amount, on, overId }) => ({ name, grit, unit, amount, on, overId, skinned: null }))
  const steps = await db().rows<{ id: number }>('SELECT id FROM plan_step WHERE piece_id = :id', { id })
  const own = page.allotted.filter(a => steps.some(st => st.id === a.step)).map(a => a.lotId)
  if (own.length === 0) return short
  const skinned = await db().rows<LotRow>(`${LOTS} WHERE lot.id IN (:own) AND lot.skinned_on IS NOT NULL`, { own })
  return [
    ...short,
    ...skinned.map(({ name, grit, unit, code, skinned_on: on }) => ({
      ...{ name, grit, unit, amount: 0, on: on!, overId: null, skinned: code },
    })),
  ]
}
export const containersSaid = ({ containers, total, unit }: Pick<Bought, 'containers' | 'total' | 'unit'>): string =>
  containers.length
    ? containers.map(c => `${c.n} × ${quantitySaid(c.size, unit)}`).join(' + ')
    : quantitySaid(Math.ceil(total), unit)
export type Bought = Awaited<ReturnType<typeof needsPage>>['buy'][number]

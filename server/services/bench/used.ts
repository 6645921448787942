/** What a step used: taken from its lots, and told against the plan. */
import { materialOf } from '#core/materials'
import { startVerdictsOf } from '../plan/judge'
import type { StoredPlan } from '../plan/rows'
import { tell } from '../platform/log'
import type { Act } from './act'

/** What speaks against a product of another class than planned: it is told, and the record stays true. */
export async function brokenBy(
  { tx, file, plan, step, at }: Act,
  uses: readonly { lotId: number }[],
): Promise<string[]> {
  if (!uses.length || !step.product) return []
  const others = await tx.rows<{ class: string }>(
    `SELECT DISTINCT product.class
        FROM lot
        JOIN product ON product.id = lot.product_id
        WHERE lot.id IN (:lots) AND product.class <> :planned`,
    { lots: uses.map(u => u.lotId), planned: step.product },
  )
  const told = (p: StoredPlan) => startVerdictsOf(file, p, at).map(v => `${v.says}. ${v.reason}`)
  const before = new Set(others.length ? told(plan) : [])
  const broken = others.flatMap(other => {
    const steps = plan.steps.map(st => (st.id === step.id ? { ...st, product: other.class, label: null } : st))
    return told({ ...plan, steps }).filter(says => !before.has(says))
  })
  return [...new Set(broken)].map(says => `Against the rules: ${says}`)
}

/** Takes from a lot; more than it holds only with a word, and then the lot stands at nought. */
export async function bookUse(
  { tx, step, at }: Act,
  use: { lotId: number; amountMl: number; word: string },
): Promise<string> {
  const lot = await tx.row<{
    id: number
    left_ml: number
    code: string
    name: string
    class: string
    price_minor: number
  }>(
    `SELECT lot.id, lot.left_ml, lot.code, product.name, product.class, product.price_minor
        FROM lot
        JOIN product ON product.id = lot.product_id
        WHERE lot.id = :lotId
        FOR UPDATE`,
    use,
  )
  if (!lot) throw fail(422, 'invalid', 'There is no such lot.', { 'used.0.lotId': 'Choose a lot.' })
  if (use.amountMl > lot.left_ml && !use.word)
    throw fail(
      422,
      'below-zero',
      `Lot ${lot.code} holds ${Math.round(lot.left_ml)} ml by the book, ${Math.round(use.amountMl)} ml were ` +
        'used. Say a word why, or choose another lot.',
      { 'used.0.word': 'Say a word why.' },
    )
  const booked = Math.min(use.amountMl, lot.left_ml)
  await tx.run('UPDATE lot SET left_ml = left_ml - :booked WHERE id = :id', { booked, id: lot.id })
  await tx.run(
    `INSERT INTO lot_use (lot_id, step_id, amount_ml, booked_ml, price_minor, word, at)
        VALUES (:lotId, :stepId, :amountMl, :booked, :price, :word, :at)`,
    { ...use, stepId: step.id, booked, price: lot.price_minor, at },
  )
  await tell(tx, 'store', null, at)
  const other = step.product && lot.class !== step.product ? ` instead of ${materialOf(step.product).name}` : ''
  return `used ${Math.round(use.amountMl)} ml ${lot.name}, lot ${lot.code}${other}${use.word ? ` (${use.word})` : ''}`
}

/** What a step used: taken from its lots and pots, and told against the plan. */
import { materialOf } from '#core/materials'
import { productProblem } from '#core/plan'
import type { Unit } from '#core/store'
import type { BenchCommand } from '#shared/schemas'
import { startVerdictsOf } from '../plan/judge'
import type { StoredPlan } from '../plan/rows'
import { readBatch } from '../colour/potRows'
import { tell } from '../platform/log'
import type { Act } from './act'

type Used = Extract<BenchCommand, { kind: 'finish' }>['used'][number]
type OfLot = Extract<Used, { lotId: number }>
type OfPot = Extract<Used, { batchId: number }>
const isOfLot = (use: Used): use is OfLot => 'lotId' in use

interface Lot {
  id: number
  left_amount: number
  code: string
  name: string
  class: string
  unit: Unit
  gone_at: Date | null
  product_id: number
  /** the newest of its product */
  label: number | null
  price_minor: number
}
const LOT = `SELECT lot.id, lot.left_amount, lot.code, lot.gone_at, product.name, product.class, product.unit,
    product.id AS product_id,
    (SELECT MAX(id) FROM product_label WHERE product_id = product.id) AS label, product.price_minor
    FROM lot
    JOIN product ON product.id = lot.product_id
    WHERE lot.id = :lotId
    FOR UPDATE`

/** Takes from a lot; more than it holds, or another kind than planned, only with a word. `place`: in the list. */
async function bookLot({ tx, step, at }: Act, use: OfLot, place: number): Promise<{ says: string; lot: Lot }> {
  const lot = await tx.row<Lot>(LOT, use)
  const field = (name: string, says: string) => ({ [`used.${place}.${name}`]: says })
  if (!lot) throw fail(422, 'invalid', 'There is no such lot.', field('lotId', 'Choose a lot.'))
  if (lot.gone_at)
    throw fail(409, 'gone', `Lot ${lot.code} was thrown away. Choose another.`, field('lotId', 'Choose another lot.'))
  if (lot.unit !== 'ml')
    throw fail(
      422,
      'invalid',
      `${lot.name} is not measured in ml. Take it for the piece in the store.`,
      field('lotId', 'Choose a lot that is measured in ml.'),
    )
  if (use.amountMl > lot.left_amount && !use.word)
    throw fail(
      422,
      'below-zero',
      `Lot ${lot.code} holds ${Math.round(lot.left_amount)} ml by the book, ${Math.round(use.amountMl)} ml were ` +
        'used. Say a word why, or choose another lot.',
      field('word', 'Say a word why.'),
    )
  const other = step.product && lot.class !== step.product ? materialOf(step.product).name : null
  if (other && !use.word)
    throw fail(
      422,
      'other-kind',
      `${lot.name} is of another kind than planned, ${other}. Say a word why it was taken.`,
      field('word', 'Say a word why.'),
    )
  const booked = Math.min(use.amountMl, lot.left_amount)
  await tx.run(
    `UPDATE lot
        SET left_amount = left_amount - :booked, opened_on = COALESCE(opened_on, :at), row_version = row_version + 1
        WHERE id = :id`,
    { booked, id: lot.id, at },
  )
  await tx.run(
    `INSERT INTO lot_use (lot_id, step_id, amount, booked, price_minor, word, at)
        VALUES (:lotId, :stepId, :amountMl, :booked, :price, :word, :at)`,
    { ...use, stepId: step.id, booked, price: lot.price_minor, at },
  )
  const why = use.word ? ` (${use.word})` : ''
  const says =
    `Used ${Math.round(use.amountMl)} ml ${lot.name}, lot ${lot.code}` + (other ? ` instead of ${other}` : '') + why
  return { says, lot }
}

/** Takes from a pot: what went into it was booked when it was poured, so its share of that is what it costs. */
async function bookPot({ tx, step, at }: Act, use: OfPot, place: number): Promise<string> {
  const pot = await readBatch(tx, use.batchId, true)
  const field = (says: string) => ({ [`used.${place}.batchId`]: says })
  if (pot.closed_at || pot.left_g === null)
    throw fail(409, 'no-pot', `Pot ${pot.id} is ${pot.closed_at ? 'emptied' : 'not mixed'}.`, field('Another pot.'))
  if (use.amountG > pot.left_g && !use.word)
    throw fail(
      422,
      'below-zero',
      `Pot ${pot.id} holds ${pot.left_g.toFixed(0)} g by the book, ${use.amountG.toFixed(0)} g were used. ` +
        'Say a word why, or choose another.',
      { [`used.${place}.word`]: 'Say a word why.' },
    )
  const { cost, poured } = (await tx.row<{ cost: number | null; poured: number | null }>(
    `SELECT (SELECT SUM(amount / 1000 * price_minor) FROM lot_use WHERE batch_id = :id) AS cost,
        (SELECT SUM(poured_g) FROM batch_line WHERE batch_id = :id) AS poured`,
    { id: pot.id },
  ))!
  const share = poured ? use.amountG / poured : 0
  await tx.run(
    `INSERT INTO pot_use (batch_id, step_id, amount_g, cost_minor, word, at)
        VALUES (:batchId, :stepId, :amountG, :cost, :word, :at)`,
    { ...use, stepId: step.id, cost: Math.round((cost ?? 0) * share), at },
  )
  await tx.run(
    'UPDATE batch SET left_g = GREATEST(0, left_g - :amountG), row_version = row_version + 1 WHERE id = :batchId',
    use,
  )
  return `Used ${use.amountG.toFixed(0)} g of pot ${pot.id}, ${pot.name}${use.word ? ` (${use.word})` : ''}`
}

/** The step goes on by what lies on the piece: another product is its product now, where its act takes it. */
async function goesOnBy({ tx, step }: Act, lot: Lot): Promise<void> {
  const same = lot.class === step.product && (lot.product_id === step.productId || lot.label === null)
  if (same || step.product === null || productProblem({ kind: step.kind, product: lot.class })) return
  await tx.run(
    `UPDATE plan_step
        SET planned_product = product, planned_label = label_id, product = :class, label_id = :label
        WHERE id = :id`,
    { class: lot.class, label: lot.label, id: step.id },
  )
}

/** What speaks against another kind than was planned: it is told, and the record stays true. */
function brokenBy({ file, plan, step, at }: Act, lot: Lot): string[] {
  if (!step.product || lot.class === step.product) return []
  const told = (p: StoredPlan) => startVerdictsOf(file, p, at).map(v => `${v.says}. ${v.reason}`)
  const before = new Set(told(plan))
  const steps = plan.steps.map(st => (st.id === step.id ? { ...st, product: lot.class, label: lot.label } : st))
  const broken = told({ ...plan, steps }).filter(says => !before.has(says))
  return [...new Set(broken)].map(says => `Against the rules: ${says}`)
}

/** Books all that a step used, lots in the order of their numbers, and says it. The most of it is what the step is. */
export async function bookUsed(act: Act, used: readonly Used[]): Promise<string[]> {
  const placed = used.map((use, place) => ({ use, place }))
  const ofLots = placed.flatMap(({ use, place }) => (isOfLot(use) ? { use, place } : []))
  const ofPots = placed.flatMap(({ use, place }) => (isOfLot(use) ? [] : { use, place }))
  const said: string[] = []
  let most: { ml: number; lot: Lot } | null = null
  for (const { use, place } of ofLots.sort((a, b) => a.use.lotId - b.use.lotId)) {
    const { says, lot } = await bookLot(act, use, place)
    said[place] = says
    if (!most || use.amountMl > most.ml) most = { ml: use.amountMl, lot }
  }
  for (const { use, place } of ofPots.sort((a, b) => a.use.batchId - b.use.batchId))
    said[place] = await bookPot(act, use, place)
  if (used.length) await tell(act.tx, 'store', null, act.at)
  if (!most || most.ml <= 0) return said
  await goesOnBy(act, most.lot)
  return [...said, ...brokenBy(act, most.lot)]
}

/** What a step used goes back to its lots and pots, and it is as it was planned again. */
export async function giveBack({ tx, step, at }: Act): Promise<void> {
  const lots = await tx.rows<{ lot_id: number; amount: number; booked: number; price_minor: number }>(
    `SELECT lot_id, SUM(amount) AS amount, SUM(booked) AS booked, MAX(price_minor) AS price_minor
        FROM lot_use
        WHERE step_id = :id
        GROUP BY lot_id
        HAVING SUM(amount) > 0
        ORDER BY lot_id`,
    { id: step.id },
  )
  for (const use of lots) {
    await tx.run(
      'UPDATE lot SET left_amount = left_amount + :booked, row_version = row_version + 1 WHERE id = :lot_id',
      use,
    )
    await tx.run(
      `INSERT INTO lot_use (lot_id, step_id, amount, booked, price_minor, word, at)
          VALUES (:lot_id, :stepId, -:amount, -:booked, :price_minor, 'taken back', :at)`,
      { ...use, stepId: step.id, at },
    )
  }
  const pots = await tx.rows<{ batch_id: number; amount: number; cost: number }>(
    `SELECT batch_id, SUM(amount_g) AS amount, SUM(cost_minor) AS cost
        FROM pot_use
        WHERE step_id = :id
        GROUP BY batch_id
        HAVING SUM(amount_g) > 0
        ORDER BY batch_id`,
    { id: step.id },
  )
  for (const use of pots) {
    await tx.run('UPDATE batch SET left_g = left_g + :amount, row_version = row_version + 1 WHERE id = :batch_id', use)
    await tx.run(
      `INSERT INTO pot_use (batch_id, step_id, amount_g, cost_minor, word, at)
          VALUES (:batch_id, :stepId, -:amount, -:cost, 'taken back', :at)`,
      { ...use, stepId: step.id, at },
    )
  }
  await tx.run(
    `UPDATE plan_step
        SET product = planned_product, label_id = planned_label, planned_product = NULL, planned_label = NULL
        WHERE id = :id AND planned_product IS NOT NULL`,
    { id: step.id },
  )
}

import { wentHome } from '#core/piece'
import { innerOf, judgeRecipe, readUnder, type SearchQuestion, sharesOf, surfaceOf } from '#core/colour'
import { materialOf } from '#core/materials'
import { scaledUp, toleranceOf } from '#core/mixing'
import { round } from '#core/units'
import type { BatchAct } from '#shared/colour'
import { type Db, transaction } from '../../database/db'
import { tell } from '../platform/log'
import type { Person } from '../shop/person'
import { CARRIERS, type Line, writeLines } from './potLines'
import {
  type BatchLine,
  type BatchRow,
  type Content,
  readBatch,
  readContents,
  readLines,
  readTries,
  weightOf,
} from './potRows'
import { mixed, type Turn, write } from './potTurn'
import { readReading } from './readings'
import { lightsOf, questionOf, readRecipe } from './recipes'

/** The pot's own question: its recipe's, with the shares that are in it. */
async function potQuestion(tx: Db, b: BatchRow): Promise<SearchQuestion> {
  if (!b.recipe_id)
    throw fail(409, 'no-recipe', 'This pot has no recipe with a target, so there is nothing to correct towards.')
  const r = await readRecipe(tx, b.recipe_id)
  return questionOf(
    tx,
    { ...r, lights: lightsOf(r) },
    await readReading(tx, r.wood_id),
    null,
    await readReading(tx, r.target_id),
    r.shares.map(s => s.id),
  )
}

/** Books what was poured from its lot, by volume; a second weighing books the difference. */
async function bookPour(
  tx: Db,
  b: BatchRow,
  line: BatchLine,
  lotId: number,
  poured_g: number,
  at: Date,
): Promise<string> {
  const before = line.lot_id === lotId ? (line.poured_g ?? 0) : 0
  // both lots, in the order of their numbers, before either is changed
  await tx.rows('SELECT id FROM lot WHERE id IN (:lots) ORDER BY id FOR UPDATE', {
    lots: [lotId, line.lot_id ?? lotId],
  })
  if (line.lot_id !== null && line.lot_id !== lotId && line.poured_g) await bookPour(tx, b, line, line.lot_id, 0, at)
  const lot = await tx.row<{ code: string; left_amount: number; product_id: number; price_minor: number }>(
    `SELECT lot.code, lot.left_amount, lot.product_id, product.price_minor
        FROM lot
        JOIN product ON product.id = lot.product_id
        WHERE lot.id = :lotId AND lot.gone_at IS NULL
        FOR UPDATE`,
    { lotId },
  )
  if (!lot || lot.product_id !== line.product_id)
    throw fail(422, 'invalid', `Choose a lot of ${line.name}.`, { lotId: 'Another product.' })
  const ml = (poured_g - before) / line.density
  if (ml > lot.left_amount + 0.005)
    throw fail(
      409,
      'below-zero',
      `Lot ${lot.code} holds ${Math.round(lot.left_amount)} ml by the book, ${Math.round(ml)} ml would be taken. ` +
        'Choose another lot, or count it anew.',
      { lotId: 'Not enough in it.' },
    )
  await tx.run(
    `UPDATE lot
        SET left_amount = GREATEST(0, left_amount - :ml), opened_on = COALESCE(opened_on, :at),
          row_version = row_version + 1
        WHERE id = :lotId`,
    { ml, lotId, at },
  )
  await tx.run(
    `INSERT INTO lot_use (lot_id, step_id, batch_id, amount, booked, price_minor, at)
        VALUES (:lotId, NULL, :batchId, :ml, :ml, :price, :at)`,
    { lotId, batchId: b.id, ml, price: lot.price_minor, at },
  )
  await tell(tx, 'store', null, at)
  return `, lot ${lot.code}`
}
const last = (lines: readonly BatchLine[]) => Math.max(0, ...lines.map(l => l.turn))

async function pour({ tx, b, lines, at }: Turn, act: Extract<BatchAct, { kind: 'pour' }>) {
  const line = lines.find(l => l.id === act.lineId)
  if (!line) throw notFound('line of this pot')
  if (line.turn !== last(lines))
    throw fail(409, 'closed', 'This filling was used and corrected since; pour what was added after it.')
  const over = act.poured_g > line.wanted_g + toleranceOf(line.wanted_g, b.smallest_g)
  const tooMuch = over ? `, ${(act.poured_g - line.wanted_g).toFixed(1)} g too much` : ''
  const lotSays = act.lotId ? await bookPour(tx, b, line, act.lotId, act.poured_g, at) : ''
  await tx.run('UPDATE batch_line SET poured_g = :poured_g, lot_id = :lotId WHERE id = :lineId', act)
  return {
    says: `Pot ${b.id}: ${line.name} ${act.poured_g.toFixed(1)} g${lotSays}${tooMuch}`,
  }
}

/** Too much of one: what the others need grows with it. */
async function scaleUp({ tx, b, lines }: Turn) {
  const turn = last(lines)
  if (turn > 0)
    throw fail(409, 'correct', 'Too much was added to what was left. Mix, read a band, and let it be corrected again.')
  const mine = lines.filter(l => l.turn === turn)
  const rest = scaledUp(
    mine.map(l => ({ name: l.name, wanted_g: l.wanted_g, poured_g: l.poured_g ?? 0 })),
    t => toleranceOf(t, b.smallest_g),
  )
  if (rest.factor === 1) throw fail(409, 'nothing', 'Nothing in this pot is over; there is nothing to scale up.')
  for (const [i, l] of mine.entries())
    await tx.run('UPDATE batch_line SET wanted_g = :wanted WHERE id = :id', {
      id: l.id,
      wanted: round(rest.lines[i]!.wanted_g, 3),
    })
  return { says: `Pot ${b.id} scaled up by ${((rest.factor - 1) * 100).toFixed(1)} % to ${rest.total_g.toFixed(1)} g` }
}

/** A band of this pot was read: how far it is from the target, and how far that was foretold. */
async function tryIt({ tx, b, lines, contents, person, at }: Turn, act: Extract<BatchAct, { kind: 'try' }>) {
  const q = await potQuestion(tx, b)
  const reading = await readReading(tx, act.readingId)
  const turn = last(lines)
  if (await tx.row('SELECT id FROM batch_try WHERE batch_id = :id AND turn = :turn', { id: b.id, turn }))
    throw fail(409, 'exists', 'This filling has been tried already. Correct the pot first, or begin a new one.')
  const reached = judgeRecipe({ ...q, substrates: [innerOf(reading.spectrum, surfaceOf(reading))] }, []).score
  const foretold = judgeRecipe(q, sharesIn(contents, q)).score
  const before = (
    await tx.row<{ foretold: number }>('SELECT foretold FROM batch_correction WHERE batch_id = :id AND turn = :turn', {
      id: b.id,
      turn,
    })
  )?.foretold
  await tx.run(
    `INSERT INTO batch_try (batch_id, turn, reading_id, foretold, reached, person_id, at)
        VALUES (:id, :turn, :readingId, :foretold, :reached, :personId, :at)`,
    { id: b.id, turn, readingId: act.readingId, foretold: before ?? foretold, reached, personId: person.id, at },
  )
  return {
    says:
      `Pot ${b.id}, try ${turn + 1}: ΔE00 ${reached.toFixed(2)}, ${(before ?? foretold).toFixed(2)} was ` +
      `expected${q.surface.clear && !reading.clear_coat ? '; read bare, reckoned under the finish' : ''}`,
  }
}

/** What a pot holds of the recipe's colourants, and of the rest, in grams. */
function partsIn(contents: readonly Content[], q: SearchQuestion) {
  const parts = q.colourants.map(k => ({ id: k.id, g: contents.find(c => c.product_id === k.id)?.g ?? 0 }))
  return { parts, carrier_g: weightOf(contents) - parts.reduce((s, p) => s + p.g, 0) }
}
const sharesIn = (contents: readonly Content[], q: SearchQuestion) =>
  sharesOf(partsIn(contents, q)).filter(s => s.pct > 0)

/** What to add to what is left, as the next turn of lines; or that a new pot is better. */
async function correct({ tx, b, lines, contents }: Turn, act: Extract<BatchAct, { kind: 'correct' }>) {
  const q = await potQuestion(tx, b)
  const turn = last(lines)
  const tried = (await readTries(tx, b.id)).find(t => t.turn === turn)
  if (!tried)
    throw fail(409, 'not-tried', 'Read a band of this pot first; without it there is nothing to correct from.')
  const total = weightOf(contents)
  if (act.left_g > total + b.smallest_g)
    throw fail(422, 'invalid', `There were only ${total.toFixed(1)} g in this pot.`, { left_g: 'More than went in.' })
  const carrier = lines.find(l => !q.colourants.some(k => k.id === l.product_id))
  const pot = { ...partsIn(contents, q), left_g: act.left_g }
  const fix = await inWorker('correct', {
    question: q,
    pot,
    reached: readUnder(tried.spectrum, surfaceOf(tried), q.surface),
  })
  const named = (id: number) => lines.find(l => l.product_id === id)!
  const add: Line[] = fix.add
    .filter(a => a.g >= b.smallest_g / 2)
    .map(a => ({
      name: named(a.id).name,
      class: named(a.id).class,
      productId: a.id,
      density: named(a.id).density,
      wanted_g: a.g,
    }))
  if (fix.addCarrier_g >= b.smallest_g / 2)
    add.push({
      name: carrier?.name ?? CARRIERS[materialOf(q.colourants[0]!.group).base]!,
      class: null,
      productId: null,
      density: carrier?.density ?? 1,
      wanted_g: fix.addCarrier_g,
    })
  const advice = {
    before: fix.before,
    after: fix.after,
    newPot: fix.newPot,
    total_g: fix.total_g,
    takes: fix.takes,
    add: add.map(a => ({ name: a.name, g: a.wanted_g })),
  }
  if (fix.newPot || add.length === 0)
    return {
      says:
        `Pot ${b.id}: ${fix.newPot ? 'a new pot is better' : 'it is as near as adding brings it'} (ΔE00 ` +
        `${fix.before.toFixed(2)}, ${fix.after.toFixed(2)} with adding)`,
      advice,
    }
  await writeLines(tx, b.id, turn + 1, add)
  await tx.run('INSERT INTO batch_correction (batch_id, turn, left_g, foretold) VALUES (:id, :turn, :left_g, :after)', {
    id: b.id,
    turn: turn + 1,
    left_g: act.left_g,
    after: fix.after,
  })
  await tx.run('UPDATE batch SET left_g = :left, mixed_at = NULL WHERE id = :id', {
    id: b.id,
    left: round(fix.total_g, 2),
  })
  return {
    says:
      `Pot ${b.id}: add ${add.map(a => `${a.wanted_g.toFixed(1)} g ${a.name}`).join(', ')}; ΔE00 ` +
      `${fix.before.toFixed(2)} to ${fix.after.toFixed(2)} expected`,
    advice,
  }
}

async function keepLeft({ tx, b }: Turn, act: Extract<BatchAct, { kind: 'left' }>) {
  await tx.run('UPDATE batch SET left_g = :left_g, place = :place WHERE id = :id', { ...act, id: b.id })
  return {
    says:
      `Pot ${b.id}: ${act.left_g.toFixed(0)} g ` +
      `kept${act.place ? ` in ${act.place}` : ''}${b.piece ? ` until ${b.piece} has been handed over` : ''}`,
  }
}

async function close({ tx, b, at }: Turn) {
  if (b.piece_id !== null && !wentHome(b.piece_state) && b.recipe_id !== null && (b.left_g ?? 0) > 0)
    throw fail(409, 'kept', `What is left of this colour is kept until ${b.piece} has been handed over.`)
  await tx.run('UPDATE batch SET closed_at = :at WHERE id = :id', { id: b.id, at })
  return { says: `Pot ${b.id} emptied` }
}

function actOn(turn: Turn, act: BatchAct): Promise<{ says: string; advice?: object }> {
  switch (act.kind) {
    case 'pour':
      return pour(turn, act)
    case 'scale-up':
      return scaleUp(turn)
    case 'mixed':
      return mixed(turn)
    case 'try':
      return tryIt(turn, act)
    case 'correct':
      return correct(turn, act)
    case 'left':
      return keepLeft(turn, act)
    case 'close':
      return close(turn)
  }
}

/** An act on a pot: pour, scale up, mixed, try, correct, what is left, close. */
export const actOnBatch = (id: number, act: BatchAct, person: Person, at: Date) =>
  transaction(async tx => {
    const b = await readBatch(tx, id, true)
    if (b.row_version !== act.rowVersion) throw stale()
    if (b.closed_at) throw fail(409, 'closed', 'This pot has been emptied; its record is closed.')
    const lines = await readLines(tx, id)
    const turn: Turn = { tx, b, lines, contents: await readContents(tx, lines, id), person, at }
    const result = await actOn(turn, act)
    await tx.run('UPDATE batch SET row_version = row_version + 1 WHERE id = :id', { id })
    await write(tx, b, result.says, person, at)
    return { ok: true, ...result }
  })

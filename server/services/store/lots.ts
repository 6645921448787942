/** Cans of the store: received, counted, spilt, taken, thrown away, moved, kept for a piece; where each went. */
import type { z } from 'zod'
import { materialOf, MATERIALS } from '#core/materials'
import { ageState, goodUntil, keepsOf, leftByWeight, PRICED_BY, quantitySaid, type Unit } from '#core/store'
import type * as s from '#shared/schemas'
import { db, type Db, transaction } from '../../database/db'
import { refused } from '../colour/told'
import { placeId } from '../piece/items'
import { readTitles } from '../plan/titles'
import { log, tell } from '../platform/log'
import type { Person } from '../shop/person'
import { readShop } from '../shop/rows'
import { NEWEST_LABELS, type NewestLabel } from './labels'

export interface LotRow {
  id: number
  product_id: number
  name: string
  class: string
  unit: Unit
  grit: string
  code: string
  left_amount: number
  received_on: string
  opened_on: string | null
  best_before: string | null
  skinned_on: string | null
  holds: number | null
  tare_g: number | null
  paid_minor: number | null
  price_minor: number
  place: string | null
  kept_for: number | null
  gone_at: Date | null
  row_version: number
}
export const LOTS = `SELECT lot.*, product.name, product.class, product.unit, product.grit, product.price_minor,
    place.code AS place,
    -- what a piece that went home does not need any more is for any
    (
      SELECT piece.id FROM piece WHERE piece.id = lot.kept_for AND piece.state IN ('active', 'ready')
    ) AS kept_for
    FROM lot
    JOIN product ON product.id = lot.product_id
    LEFT JOIN place ON place.id = lot.place_id`

const materialIn = (slug: string) => MATERIALS.find(m => m.slug === slug) ?? null
/** Months that a product keeps: by its newest label, else by its class. */
export async function readKeeps(on: Db): Promise<(of: { id: number; class: string }) => ReturnType<typeof keepsOf>> {
  const labels = new Map((await on.rows<NewestLabel>(NEWEST_LABELS)).map(l => [l.product_id, l.figures]))
  return product => keepsOf(materialIn(product.class), labels.get(product.id) ?? {})
}
/** Until when a lot is good. */
export async function readAges(on: Db): Promise<(lot: LotRow) => string | null> {
  const keeps = await readKeeps(on)
  return lot => goodUntil(lot, keeps({ id: lot.product_id, class: lot.class }))
}
export const agedLot = (lot: LotRow, until: string | null, today: string) => ({
  ...lot,
  ...{ until, age: ageState(until, today) },
})

const dayOf = (at: Date) => at.toISOString().slice(0, 10)
const MOVED = `INSERT INTO lot_move (lot_id, kind, amount, word, piece_id, cost_minor, person_id, at)
    VALUES (:id, :kind, :amount, :word, :pieceId, :cost, :personId, :at)`

export const addLot = (input: z.infer<typeof s.addLot>, person: Person, at: Date) =>
  transaction(async tx => {
    const product = await tx.row<{ name: string; unit: Unit }>('SELECT name, unit FROM product WHERE id = :productId', {
      productId: input.productId,
    })
    if (!product) throw fail(422, 'invalid', 'There is no such product.', { productId: 'Choose a product.' })
    const placed = input.place ? await placeId(tx, { code: input.place, kind: 'shelf' }) : null
    const { id } = await tx.run(
      `INSERT INTO lot (product_id, code, left_amount, holds, received_on, best_before, paid_minor, place_id)
          VALUES (:productId, :code, :amount, :amount, :day, :bestBefore, :paidMinor, :placed)`,
      { ...input, day: dayOf(at), placed },
    )
    await tx.run(MOVED, {
      ...{ id, kind: 'received', amount: input.amount, word: '', pieceId: null, cost: input.paidMinor },
      ...{ personId: person.id, at },
    })
    const says = `Lot received: ${product.name}, ${input.code}, ${quantitySaid(input.amount, product.unit)}`
    await log(tx, { pieceId: null, kind: 'store', says, at, recordedAt: at, personId: person.id })
    await tell(tx, 'store', null, at)
    return { id }
  })

type LotAct = z.infer<typeof s.lotAct>['act']
/** What changes of it, and what is said. */
interface Done {
  set: Partial<
    Record<'left_amount' | 'opened_on' | 'place_id' | 'gone_at' | 'kept_for' | 'tare_g' | 'skinned_on', unknown>
  >
  kind: 'counted' | 'spilt' | 'taken' | 'thrown' | 'back' | 'moved' | 'opened' | 'kept' | 'skinned' | 'strained'
  says: string
  word?: string
  /** the piece that it was taken for */
  taken?: { pieceId: number; amount: number }
}
const rest = (lot: LotRow, amount: number): number => {
  if (amount > lot.left_amount + 0.005)
    throw fail(
      409,
      'below-zero',
      `Lot ${lot.code} holds ${quantitySaid(lot.left_amount, lot.unit)} by the book. Count it anew, or take less.`,
      { 'act.amount': 'Not so much in it.' },
    )
  return Math.max(0, lot.left_amount - amount)
}
const takenFor = async (tx: Db, id: number, pieceId: number): Promise<number> =>
  -Number(
    (
      await tx.row<{ n: number | null }>(
        "SELECT SUM(amount) AS n FROM lot_move WHERE lot_id = :id AND piece_id = :pieceId AND kind = 'taken'",
        { id, pieceId },
      )
    )?.n ?? 0,
  )
async function activePiece(tx: Db, id: number): Promise<void> {
  const piece = await tx.row<{ state: string }>('SELECT state FROM piece WHERE id = :id', { id })
  if (!piece || !['active', 'ready'].includes(piece.state))
    throw fail(409, 'nothing', 'This piece is not in the shop.', { 'act.pieceId': 'Choose a piece that is here.' })
}
async function done(tx: Db, lot: LotRow, act: LotAct, at: Date): Promise<Done> {
  const q = (amount: number) => quantitySaid(amount, lot.unit)
  const counted = (left: number): Done => ({
    ...{ kind: 'counted', set: { left_amount: left } },
    says: `${q(left)} counted, ${q(lot.left_amount)} by the book`,
  })
  switch (act.kind) {
    case 'count':
      return { ...counted(act.amount), word: act.word }
    case 'weigh': {
      if (lot.unit !== 'ml' && lot.unit !== 'g')
        throw fail(409, 'nothing', 'Count it: what is sold by the piece or the metre is not weighed.')
      const density = lot.unit === 'g' ? 1 : (materialIn(lot.class)?.density ?? 1)
      const left = refused(() => leftByWeight(act.gross_g, act.tare_g, density, lot.holds))
      const { set, ...more } = counted(Math.round(left * 100) / 100)
      return { ...more, set: { ...set, tare_g: act.tare_g }, word: `weighed ${act.gross_g} g, empty ${act.tare_g} g` }
    }
    case 'spill':
      return {
        kind: 'spilt',
        set: { left_amount: rest(lot, act.amount) },
        says: `${q(act.amount)} spilt`,
        word: act.word,
      }
    case 'take':
      await activePiece(tx, act.pieceId)
      return {
        ...{ kind: 'taken', set: { left_amount: rest(lot, act.amount) }, word: act.word },
        ...{ says: `${q(act.amount)} taken for piece ${act.pieceId}`, taken: act },
      }
    case 'return': {
      const out = await takenFor(tx, lot.id, act.pieceId)
      if (act.amount > out + 0.005)
        throw fail(409, 'nothing', `${q(out)} of it were taken for piece ${act.pieceId}.`, {
          'act.amount': 'Not so much.',
        })
      return {
        ...{ kind: 'taken', set: { left_amount: lot.left_amount + act.amount } },
        ...{ says: `${q(act.amount)} back from piece ${act.pieceId}`, taken: { ...act, amount: -act.amount } },
      }
    }
    case 'throw':
      return { kind: 'thrown', set: { gone_at: at }, says: `thrown away, ${q(lot.left_amount)} in it`, word: act.word }
    case 'back':
      if (!lot.gone_at) throw fail(409, 'nothing', 'It is in the store.')
      return { kind: 'back', set: { gone_at: null }, says: 'not thrown away after all' }
    case 'move': {
      const placed = act.place ? await placeId(tx, { code: act.place, kind: 'shelf' }) : null
      return { kind: 'moved', set: { place_id: placed }, says: act.place ? `now at ${act.place}` : 'at no place' }
    }
    case 'open':
      if (lot.opened_on) throw fail(409, 'nothing', 'It is open already.')
      return { kind: 'opened', set: { opened_on: dayOf(at) }, says: 'opened' }
    case 'skin':
      if (lot.skinned_on) throw fail(409, 'nothing', 'That is said already.')
      return { kind: 'skinned', set: { skinned_on: dayOf(at) }, says: 'has a skin' }
    case 'strain':
      if (!lot.skinned_on) throw fail(409, 'nothing', 'Nobody said that it has a skin.')
      return { kind: 'strained', set: { skinned_on: null }, says: 'strained' }
    case 'keep':
      if (act.pieceId !== null) await activePiece(tx, act.pieceId)
      return {
        ...{ kind: 'kept', set: { kept_for: act.pieceId } },
        says: act.pieceId === null ? 'for any piece' : `kept for piece ${act.pieceId}`,
      }
  }
}
/** Columns that an act may change; their names come from here alone. */
const COLUMNS = ['left_amount', 'opened_on', 'place_id', 'gone_at', 'kept_for', 'tare_g', 'skinned_on'] as const

export const actOnLot = (id: number, { rowVersion, act }: z.infer<typeof s.lotAct>, person: Person, at: Date) =>
  transaction(async tx => {
    const lot = await tx.row<LotRow>(`${LOTS} WHERE lot.id = :id FOR UPDATE`, { id })
    if (!lot) throw notFound('lot')
    if (lot.row_version !== rowVersion) throw stale()
    if (lot.gone_at && act.kind !== 'back')
      throw fail(409, 'gone', `Lot ${lot.code} was thrown away. Take that back first.`)
    const { set, kind, says, word = '', taken } = await done(tx, lot, act, at)
    const columns = COLUMNS.filter(c => c in set)
    await tx.run(
      `UPDATE lot SET ${columns.map(c => `${c} = :${c}, `).join('')}row_version = row_version + 1 WHERE id = :id`,
      {
        ...set,
        id,
      },
    )
    const left = kind === 'thrown' ? 0 : ((set.left_amount as number | undefined) ?? lot.left_amount)
    const change = kind === 'back' ? lot.left_amount : left - lot.left_amount
    const cost = taken ? Math.round((taken.amount / PRICED_BY[lot.unit]) * lot.price_minor) : null
    await tx.run(MOVED, {
      ...{ id, kind, amount: change, word, pieceId: taken?.pieceId ?? null, cost, personId: person.id, at },
    })
    const said = `Lot ${lot.code}, ${lot.name}: ${says}${word ? ` (${word})` : ''}`
    await log(tx, {
      pieceId: taken?.pieceId ?? null,
      kind: 'store',
      says: said,
      at,
      recordedAt: at,
      personId: person.id,
    })
    await tell(tx, 'store', null, at)
    if (taken) await tell(tx, 'piece', taken.pieceId, at)
    return { ok: true }
  })

const MOST = 200
/** One can: its age, what was done with it, and every piece and pot that it went into. */
export async function lotPage(id: number, at: Date) {
  const lot = await db().row<LotRow>(`${LOTS} WHERE lot.id = :id`, { id })
  if (!lot) throw notFound('lot')
  const until = (await readAges(db()))(lot)
  const material = materialIn(lot.class)
  const went = await readWent(id)
  return {
    lot: agedLot(lot, until, dayOf(at)),
    kind: material ? materialOf(material.slug).name : null,
    shop: (await readShop()).name,
    moves: await db().rows<{
      id: number
      kind: Done['kind'] | 'received'
      amount: number
      word: string
      at: Date
      by: string
    }>(
      `SELECT m.id, m.kind, m.amount, m.word, m.at, person.name AS \`by\`
          FROM lot_move m
          JOIN person ON person.id = m.person_id
          WHERE m.lot_id = :id
          ORDER BY m.id DESC
          LIMIT ${MOST}`,
      { id },
    ),
    went,
  }
}
/** Every piece and pot that a can went into, the newest first. */
async function readWent(id: number) {
  const rows = await db().rows<{
    piece_id: number
    piece: string
    step: number | null
    amount: number
    pot: number | null
    at: Date
  }>(
    `SELECT piece.id AS piece_id, piece.name AS piece, st.id AS step, u.amount, NULL AS pot, u.at
          FROM lot_use u
          JOIN plan_step st ON st.id = u.step_id
          JOIN piece ON piece.id = st.piece_id
          WHERE u.lot_id = :id
        UNION ALL
        SELECT piece.id, piece.name, st.id, NULL, batch.id, pu.at
          FROM batch
          JOIN pot_use pu ON pu.batch_id = batch.id
          JOIN plan_step st ON st.id = pu.step_id
          JOIN piece ON piece.id = st.piece_id
          WHERE batch.id IN (SELECT batch_id FROM lot_use WHERE lot_id = :id AND batch_id IS NOT NULL)
        UNION ALL
        SELECT piece.id, piece.name, NULL, -m.amount, NULL, m.at
          FROM lot_move m
          JOIN piece ON piece.id = m.piece_id
          WHERE m.lot_id = :id AND m.kind = 'taken'
          ORDER BY at DESC
          LIMIT ${MOST}`,
    { id },
  )
  const title = await readTitles(
    db(),
    rows.map(r => r.step),
  )
  return rows.map(r => ({ ...r, step: title(r.step) }))
}

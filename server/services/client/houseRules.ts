/** Rules of the house for letters: clients who did not answer are reminded while the shop is open, never at night. */
import { DateTime } from 'luxon'
import type { z } from 'zod'
import { storageOf } from '#core/estimate'
import { isWorking } from '#core/timetable'
import type * as s from '#shared/schemas'
import { db, transaction } from '../../database/db'
import { onPiece } from '../piece/pieces'
import type { PieceRow } from '../piece/rows'
import { log, logShop, tell } from '../platform/log'
import { queueMail } from '../platform/mail'
import type { Person } from '../shop/person'
import { readHours, readShop, type ShopRow } from '../shop/rows'

interface Due {
  id: number
  piece_id: number
  email: string
}
/** Questions whose time has passed are closed once, so that everybody sees that nobody answered. */
export const closeExpired = (at: Date): Promise<number> =>
  transaction(async tx => {
    const over = await tx.rows<{ id: number; piece_id: number }>(
      `SELECT id, piece_id
          FROM approval
          WHERE state = 'open' AND expires_at <= :at AND closed_at IS NULL
          ORDER BY id
          LIMIT 100
          FOR UPDATE SKIP LOCKED`,
      { at },
    )
    for (const { id, piece_id: pieceId } of over) {
      await tx.run('UPDATE approval SET closed_at = :at WHERE id = :id', { id, at })
      await log(tx, {
        ...{ pieceId, kind: 'asked', says: 'Nobody answered in time: the question is closed. Ask again.', at },
        ...{ recordedAt: at, personId: null },
      })
      await tell(tx, 'piece', pieceId, at)
    }
    return over.length
  })
/** Queues reminders that are due. Returns how many. */
export async function remindDue(at: Date): Promise<number> {
  const shop = await readShop()
  if (shop.remind_days === 0 || shop.remind_most === 0 || !isWorking(await readHours(), at.getTime())) return 0
  return transaction(async tx => {
    const due = await tx.rows<Due>(
      `SELECT a.id, a.piece_id, client.email
          FROM approval a
          JOIN piece ON piece.id = a.piece_id
          JOIN client ON client.id = piece.client_id
          WHERE piece.state IN ('enquiry', 'active', 'ready') AND a.state = 'open' AND a.answered_at IS NULL
            AND a.expires_at > :at AND client.email <> ''
            AND a.reminded < :most AND COALESCE(a.reminded_at, a.asked_at) < :at - INTERVAL :days DAY
            AND NOT EXISTS (SELECT 1 FROM approval_word w WHERE w.approval_id = a.id AND w.side = 'client')
          ORDER BY a.id
          LIMIT 100
          FOR UPDATE SKIP LOCKED`,
      { at, days: shop.remind_days, most: shop.remind_most },
    )
    for (const { id, piece_id: pieceId, email } of due) {
      await tx.run('UPDATE approval SET reminded = reminded + 1, reminded_at = :at WHERE id = :id', { id, at })
      await queueMail(tx, { kind: 'remind', recipient: email, pieceId, approvalId: id, says: '' })
      await log(tx, {
        ...{ pieceId, kind: 'mail', says: 'The client is reminded of an open question', at, recordedAt: at },
        personId: null,
      })
      await tell(tx, 'piece', pieceId, at)
    }
    return due.length
  })
}

/** The house's rule: after how many days, at most how often. */
export const changeReminders = (input: z.infer<typeof s.reminding>, person: Person, at: Date) =>
  transaction(async tx => {
    await tx.run('UPDATE shop SET remind_days = :days, remind_most = :most WHERE id = 1', input)
    const says = input.days && input.most ? `after ${input.days} d, at most ${input.most} times` : 'never'
    await logShop(tx, 'shop', `Clients are reminded of questions: ${says}`, at, person.id)
    await tell(tx, 'shop', null, at)
    return { ok: true }
  })

/** How quotations are made, and what storage costs, from now on. */
export const changeQuoting = (input: z.infer<typeof s.quoting>, person: Person, at: Date) =>
  transaction(async tx => {
    await tx.run(
      `UPDATE shop
          SET quote_days = :days, deposit_bp = :depositBp, quote_words = :words, store_free_days = :freeDays,
            store_day_minor = :dayMinor
          WHERE id = 1`,
      input,
    )
    const { days, depositBp, freeDays, dayMinor } = input
    const kept =
      dayMinor > 0 ? `; storage after ${freeDays} d costs ${dayMinor / 100} a day` : '; storage costs nothing'
    const says = `Quotations hold for ${days} d, with ${depositBp / 100} % before work begins${kept}`
    await logShop(tx, 'shop', says, at, person.id)
    await tell(tx, 'shop', null, at)
    return { ok: true }
  })

/** What a client paid before the work is done, in all. */
export const takeDeposit = (id: number, input: z.infer<typeof s.deposit>, person: Person, at: Date) =>
  onPiece(id, at, person, async (tx, { piece }) => {
    if (piece.row_version !== input.rowVersion) throw stale()
    const { currency } = await readShop(tx)
    await tx.run('UPDATE piece SET deposit_minor = :minor, row_version = row_version + 1 WHERE id = :id', {
      ...{ id, minor: input.minor },
    })
    const says = `Paid before: ${input.minor / 100} ${currency}, was ${piece.deposit_minor / 100}`
    return { kind: 'changed', says, result: { ok: true } }
  })

/** What keeping this piece costs by now; null while it is not ready, or within the free days. */
export function storedOf({ ready_at, handed_over_at }: PieceRow, shop: ShopRow, at: Date) {
  if (!ready_at) return null
  const day = (moment: Date) => DateTime.fromJSDate(moment, { zone: shop.zone }).toISODate()!
  const rule = { freeDays: shop.store_free_days, day_minor: shop.store_day_minor }
  const stored = storageOf(day(ready_at), day(handed_over_at ?? at), rule)
  return stored.minor > 0 ? { days: stored.charged_d, minor: stored.minor } : null
}

/** Clients of these are told that it is ready: by a letter, or by word; what was told can be told again. */
export const tellReady = (id: number, input: z.infer<typeof s.tellReady>, person: Person, at: Date) =>
  onPiece(id, at, person, async (tx, { piece }) => {
    if (piece.row_version !== input.rowVersion) throw stale()
    if (piece.state !== 'ready') throw fail(409, 'not-ready', 'It is not ready: steps are still open.')
    if (input.by === 'mail' && !piece.client_email)
      throw fail(409, 'no-address', 'There is no mail address. Call, and say so here.')
    await tx.run('UPDATE piece SET told_at = :at, row_version = row_version + 1 WHERE id = :id', { id, at })
    if (input.by === 'mail')
      await queueMail(tx, { kind: 'ready', recipient: piece.client_email, pieceId: id, approvalId: null, says: '' })
    const says = `The client was told that it is ready, ${input.by === 'mail' ? 'by mail' : 'by word'}`
    return { kind: 'mail', says, result: { ok: true } }
  })

/** What is ready to be fetched, those first whose client was not told. */
export const readReady = () =>
  db().rows<{
    id: number
    name: string
    client: string
    phone: string
    email: string
    ready_at: Date | null
    told_at: Date | null
    rowVersion: number
  }>(
    `SELECT piece.id, piece.name, client.name AS client, client.phone, client.email, piece.ready_at, piece.told_at,
        piece.row_version AS rowVersion
        FROM piece
        JOIN client ON client.id = piece.client_id
        WHERE piece.state = 'ready'
        ORDER BY piece.told_at IS NOT NULL, piece.ready_at, piece.id
        LIMIT 100`,
  )

/** Whoever gave leave is reminded once that a finish wants renewing. Returns how many. */
export async function renewDue(at: Date): Promise<number> {
  if (!isWorking(await readHours(), at.getTime())) return 0
  return transaction(async tx => {
    const due = await tx.rows<Due>(
      `SELECT piece.id, piece.id AS piece_id, client.email
          FROM piece
          JOIN client ON client.id = piece.client_id
          WHERE piece.renew_leave AND piece.renew_on <= DATE(:at) AND piece.renew_told_at IS NULL AND client.email <> ''
            AND piece.state = 'handed-over'
            AND NOT EXISTS (SELECT 1 FROM piece later WHERE later.follows_id = piece.id)
          ORDER BY piece.id
          LIMIT 100
          FOR UPDATE SKIP LOCKED`,
      { at },
    )
    for (const { id, email } of due) {
      await tx.run('UPDATE piece SET renew_told_at = :at WHERE id = :id', { id, at })
      await queueMail(tx, { kind: 'renew', recipient: email, pieceId: id, approvalId: null, says: '' })
      const says = 'The client is reminded that the finish wants renewing'
      await log(tx, { ...{ pieceId: id, kind: 'mail', says, at, recordedAt: at }, personId: null })
      await tell(tx, 'piece', id, at)
    }
    return due.length
  })
}

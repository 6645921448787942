/** Rules of the house for letters: clients who did not answer are reminded while the shop is open, never at night. */
import type { z } from 'zod'
import { isWorking } from '#core/timetable'
import type * as s from '#shared/schemas'
import { transaction } from '../../database/db'
import { log, logShop, tell } from '../platform/log'
import { queueMail } from '../platform/mail'
import type { Person } from '../shop/person'
import { readHours, readShop } from '../shop/rows'

interface Due {
  id: number
  piece_id: number
  email: string
}
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
          WHERE piece.state IN ('enquiry', 'active', 'ready') AND a.state = 'open' AND a.answered_at IS NULL AND a.expires_at > :at AND client.email <> ''
            AND a.reminded < :most AND COALESCE(a.reminded_at, a.asked_at) < :at - INTERVAL :days DAY
            AND NOT EXISTS (SELECT 1 FROM approval_word w WHERE w.approval_id = a.id AND w.side = 'client')
          ORDER BY a.id
          LIMIT 20
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

/** How quotations are made from now on. */
export const changeQuoting = ({ days, depositBp, words }: z.infer<typeof s.quoting>, person: Person, at: Date) =>
  transaction(async tx => {
    await tx.run('UPDATE shop SET quote_days = :days, deposit_bp = :depositBp, quote_words = :words WHERE id = 1', {
      ...{ days, depositBp, words },
    })
    const says = `Quotations hold for ${days} d, with ${depositBp / 100} % before work begins`
    await logShop(tx, 'shop', says, at, person.id)
    await tell(tx, 'shop', null, at)
    return { ok: true }
  })

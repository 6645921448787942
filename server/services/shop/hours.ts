/** When the shop is open: a usual week, and days on which it stays closed. */
import type { z } from 'zod'
import { openingsSaid } from '#core/timetable'
import type * as s from '#shared/schemas'
import { transaction } from '../../database/db'
import { log, tell } from '../platform/log'
import type { Person } from './person'
import { readHours } from './rows'

const DAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'] as const

export async function changeHours(input: z.infer<typeof s.hoursChange>, person: Person, at: Date) {
  return transaction(async tx => {
    const before = await readHours(tx)
    const { changed } = await tx.run(
      'UPDATE shop SET row_version = row_version + 1 WHERE id = 1 AND row_version = :rowVersion',
      input,
    )
    if (changed === 0) throw stale()
    await tx.run('DELETE FROM opening')
    for (const [i, spans] of input.week.entries())
      for (const [open, close] of spans)
        await tx.run('INSERT INTO opening (weekday, open_min, close_min) VALUES (:weekday, :open, :close)', {
          weekday: i + 1,
          open,
          close,
        })
    await tx.run('DELETE FROM closure')
    for (const { day, why } of input.closures)
      await tx.run('INSERT INTO closure (day, why) VALUES (:day, :why)', { day, why })
    const days = input.week.flatMap((spans, i) => {
      const [was, is] = [openingsSaid(before.week[i + 1] ?? []), openingsSaid(spans)]
      return was === is ? [] : [`${DAYS[i]} ${is || 'closed'}, was ${was || 'closed'}`]
    })
    const closed = input.closures.map(c => c.day)
    const fresh = closed.filter(d => !before.closures.includes(d))
    const gone = before.closures.filter(d => !closed.includes(d))
    const says = [
      ...days,
      ...(fresh.length ? [`closed on ${fresh.join(', ')}`] : []),
      ...(gone.length ? [`open again on ${gone.join(', ')}`] : []),
    ]
    await log(tx, {
      pieceId: null,
      kind: 'shop',
      says: `Opening hours: ${says.join('; ') || 'as they were'}`.slice(0, 1000),
      at,
      recordedAt: at,
      personId: person.id,
    })
    await tell(tx, 'shop', null, at)
    return { ok: true }
  })
}

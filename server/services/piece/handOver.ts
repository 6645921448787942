import type { z } from 'zod'
import { does } from '#core/acts'
import { taken } from '#core/materials'
import type * as s from '#shared/schemas'
import { db, type Db, transaction } from '../../database/db'
import { storedOf } from '../client/houseRules'
import { readPlan } from '../plan/rows'
import { log, tell } from '../platform/log'
import type { Person } from '../shop/person'
import { clockIn, readShop } from '../shop/rows'
import { mayTakeBack, onPiece } from './pieces'
import { readPiece } from './read'
import type { PieceFile } from './rows'

const DAY_MS = 86_400_000

/** Parts and hardware that were taken out and are not back. */
export const awayOf = ({ items }: PieceFile) => items.filter(i => (i.taken_out ?? 0) > (i.put_back ?? 0))
const awaySays = (items: PieceFile['items']) =>
  items.map(i => `${i.mark} ${i.name}${i.place ? ` (${i.place})` : ''}`).join(', ')

/** Until when the last of its finish still cures, by the safe figure of its products; null: it is through. */
export async function curesUntil_ms(on: Db, file: PieceFile, at: Date): Promise<number | null> {
  const plan = await readPlan(on, file)
  const ends = plan.steps.flatMap(st => {
    const m = does(st, 'finishes') && st.finished_ms !== null ? taken(file.context.shelf, st) : null
    return m ? st.finished_ms! + m.cure_d[1] * DAY_MS : []
  })
  const last = Math.max(0, ...ends)
  return last > at.getTime() ? last : null
}

/** What is open when somebody comes for it: `holds` must be done first, `open` is only said. */
export async function handOverPage(id: number, at: Date): Promise<{ holds: string[]; open: string[] }> {
  const file = await readPiece(db(), id)
  const shop = await readShop()
  const away = awayOf(file)
  const asked = await db().row<{ n: number }>(
    "SELECT COUNT(*) AS n FROM approval WHERE piece_id = :id AND state = 'open' AND expires_at > :at",
    { id, at },
  )
  const pots = await db().rows<{ id: number; name: string; place: string }>(
    'SELECT id, name, place FROM batch WHERE piece_id = :id AND closed_at IS NULL AND left_g > 0',
    { id },
  )
  const stored = storedOf(file.piece, shop, at)
  const cures = await curesUntil_ms(db(), file, at)
  return {
    holds: [
      ...(file.piece.state === 'ready' ? [] : ['Steps are still open.']),
      ...(away.length ? [`Not everything is back: ${awaySays(away)}.`] : []),
    ],
    open: [
      ...(asked!.n > 0 ? ['A question to the client is still open.'] : []),
      ...(cures === null
        ? []
        : [`The finish cures until ${clockIn(shop.zone, at)(cures)}: tell how to use it until then.`]),
      ...(stored
        ? [`Kept ${stored.days} d beyond the free ones: ${stored.minor / 100} ${shop.currency}, on the statement.`]
        : []),
      ...pots.map(p => `Pot ${p.id}, ${p.name}${p.place ? `, in ${p.place}` : ''}, may go after this.`),
    ],
  }
}

/** Hands a ready piece over and closes its record. */
export const handOver = (id: number, input: z.infer<typeof s.handOver>, person: Person, at: Date) =>
  onPiece(id, at, person, async (tx, file) => {
    const { piece } = file
    if (piece.row_version !== input.rowVersion) throw stale()
    if (piece.state !== 'ready') throw fail(409, 'not-ready', 'It is not ready: steps are still open.')
    const away = awayOf(file)
    if (away.length)
      throw fail(409, 'items-away', `Not everything is back: ${awaySays(away)}. Count it in under Examine, Parts.`)
    await tx.run(
      "UPDATE piece SET state = 'handed-over', handed_over_at = :at, row_version = row_version + 1 WHERE id = :id",
      { at, id },
    )
    return { kind: 'handed-over', says: `Handed over to ${input.to}`, result: { ok: true } }
  })

/** Takes a hand-over back within a day: the record is open again, and its entry says so. */
export const takeBack = (id: number, rowVersion: number, person: Person, at: Date) =>
  transaction(async tx => {
    const { piece } = await readPiece(tx, id, true)
    if (piece.row_version !== rowVersion) throw stale()
    if (!mayTakeBack(piece, at))
      throw fail(409, 'too-late', 'A hand-over can be taken back for a day. Take the piece in anew.')
    await tx.run(
      "UPDATE piece SET state = 'ready', handed_over_at = NULL, row_version = row_version + 1 WHERE id = :id",
      { id },
    )
    const last = await tx.row<{ id: number }>(
      "SELECT MAX(id) AS id FROM logbook WHERE piece_id = :id AND kind = 'handed-over'",
      { id },
    )
    await log(tx, {
      ...{ pieceId: id, kind: 'undone', says: 'Taken back: the hand-over' },
      ...{ at, recordedAt: at, personId: person.id, undoesId: last?.id ?? null },
    })
    await tell(tx, 'piece', id, at)
    return { ok: true }
  })

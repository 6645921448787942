/** A piece goes home: what must be through, who takes it, what it wants later; for a day it can be taken back. */
import { DateTime } from 'luxon'
import type { z } from 'zod'
import { does } from '#core/acts'
import { taken } from '#core/materials'
import { careKind, renewAfter_y, useFrom } from '#core/papers'
import type * as s from '#shared/schemas'
import { db, type Db, transaction } from '../../database/db'
import { storedOf } from '../client/houseRules'
import { type PlannedStep, readPlan, type StoredPlan } from '../plan/rows'
import { log, tell } from '../platform/log'
import type { Person } from '../shop/person'
import { clockIn, readShop } from '../shop/rows'
import { mayTakeBack, onPiece } from './pieces'
import { readPiece } from './read'
import type { PieceFile } from './rows'

/** Parts and hardware that were taken out and are not back. */
export const awayOf = ({ items }: Pick<PieceFile, 'items'>) => items.filter(i => (i.taken_out ?? 0) > (i.put_back ?? 0))
const awaySays = (items: PieceFile['items']) =>
  items.map(i => `${i.mark} ${i.name}${i.place ? ` (${i.place})` : ''}`).join(', ')

/** The last coat of each finish that lies on the piece, with its faces. */
export function finishesLaid({ context }: Pick<PieceFile, 'context'>, { steps }: Pick<StoredPlan, 'steps'>) {
  const last = new Map<string, { step: PlannedStep; faces: number[]; laid_ms: number }>()
  for (const st of steps) {
    if (st.state !== 'done' || st.finished_ms === null || !st.product || !does(st, 'finishes')) continue
    // what it covers is not what is touched
    for (const [slug, own] of last) {
      const left = own.faces.filter(f => !st.faces.includes(f))
      if (slug !== st.product && left.length === 0) last.delete(slug)
      else if (slug !== st.product) last.set(slug, { ...own, faces: left })
    }
    const own = last.get(st.product)
    const faces = [...new Set([...(own?.faces ?? []), ...st.faces])]
    last.set(st.product, { step: st, faces, laid_ms: st.finished_ms })
  }
  return [...last.values()].flatMap(({ step, faces, laid_ms }) => {
    const material = taken(context.shelf, step)
    return material ? { material, faces, laid_ms } : []
  })
}

/** Until when the last of its finish still cures, by the safe figure of its products; null: it is through. */
export function curesUntil_ms(file: PieceFile, plan: StoredPlan, at: Date): number | null {
  const ends = finishesLaid(file, plan).map(f => useFrom(f.material, f.laid_ms).hard_ms)
  const last = Math.max(0, ...ends)
  return last > at.getTime() ? last : null
}
/** The day on which its finish wants renewing, by its service life and use; null: nothing of ours is on it. */
export function renewOn(file: PieceFile, plan: StoredPlan, at: Date): string | null {
  const years = finishesLaid(file, plan).map(f => renewAfter_y(careKind(f.material), file.facts.use))
  return years.length
    ? DateTime.fromJSDate(at)
        .plus({ years: Math.min(...years) })
        .toISODate()
    : null
}

const isTaped = ({ steps }: StoredPlan) => {
  const live = steps.filter(st => st.state === 'done')
  return live.filter(st => st.kind === 'mask').length > live.filter(st => st.kind === 'unmask').length
}
async function looked(id: number, plan: StoredPlan) {
  const last = Math.max(0, ...plan.steps.map(st => st.finished_ms ?? 0))
  const after = await db().row<{ n: number }>(
    'SELECT COUNT(*) AS n FROM photograph WHERE piece_id = :id AND COALESCE(taken_at, added_at) >= :last',
    { id, last: new Date(last) },
  )
  return Number(after?.n ?? 0) > 0
}

/** What is open when somebody comes for it: `holds` must be done first, `open` is only said. */
export async function handOverPage(id: number, at: Date) {
  const file = await readPiece(db(), id)
  const { piece } = file
  const [shop, plan] = [await readShop(), await readPlan(db(), file)]
  const away = awayOf(file)
  const asked = await db().row<{ n: number }>(
    "SELECT COUNT(*) AS n FROM approval WHERE piece_id = :id AND state = 'open' AND expires_at > :at",
    { id, at },
  )
  const pots = await db().rows<{ id: number; name: string; place: string }>(
    'SELECT id, name, place FROM batch WHERE piece_id = :id AND closed_at IS NULL AND left_g > 0',
    { id },
  )
  const cures = curesUntil_ms(file, plan, at)
  const stored = storedOf(piece, shop, at)
  const left = plan.steps.filter(st => st.state === 'planned' || st.state === 'running')
  const running = left.filter(st => st.state === 'running')
  return {
    /** steps that the owner would have to do alone, by title */
    left: left.filter(st => st.kind !== 'approval').map(st => st.title),
    holds: [
      ...(running.length ? [`Still being worked on: ${running.map(st => st.title).join(', ')}.`] : []),
      ...(away.length ? [`Not everything is back: ${awaySays(away)}.`] : []),
      ...(isTaped(plan) ? ['Tape is still on it.'] : []),
    ],
    open: [
      ...(Number(asked!.n) > 0 ? ['A question to the client is still open.'] : []),
      ...((await looked(id, plan)) ? [] : ['No photograph was taken since the last step.']),
      ...(file.facts.marks.length
        ? [`Marks to be kept: ${file.facts.marks.join(', ')}. Look that they are there.`]
        : []),
      ...(cures === null
        ? []
        : [`The finish cures until ${clockIn(shop.zone, at)(cures)}: tell how to use it until then.`]),
      ...(stored
        ? [`Kept ${stored.days} d beyond the free ones: ${stored.minor / 100} ${shop.currency}, on the statement.`]
        : []),
      ...pots.map(p => `Pot ${p.id}, ${p.name}${p.place ? `, in ${p.place}` : ''}: keep it until it has been renewed.`),
    ],
    renewOn: renewOn(file, plan, at),
  }
}

/** Hands a piece over and closes its record: ready, or part done where its owner goes on alone. */
export const handOver = (id: number, input: z.output<typeof s.handOver>, person: Person, at: Date) =>
  onPiece(id, at, person, async (tx, file) => {
    const { piece } = file
    if (piece.row_version !== input.rowVersion) throw stale()
    if (piece.state !== (input.part ? 'active' : 'ready'))
      throw input.part
        ? fail(409, 'not-part', 'Nothing is left to do on it: hand it over as done.')
        : fail(409, 'not-ready', 'It is not ready: steps are still open.')
    const plan = await readPlan(tx, file)
    const running = plan.steps.find(st => st.state === 'running')
    if (running) throw fail(409, 'running', `"${running.title}" is still being worked on. Finish it, or take it back.`)
    const away = awayOf(file)
    if (away.length)
      throw fail(409, 'items-away', `Not everything is back: ${awaySays(away)}. Count it in under Examine, Parts.`)
    await tx.run(
      `UPDATE piece
          SET state = :state, handed_over_at = :at, renew_on = :renewOn, renew_leave = :remind, renew_told_at = NULL,
            row_version = row_version + 1
          WHERE id = :id`,
      {
        ...{ at, id, state: input.part ? 'part-done' : 'handed-over', remind: input.remind },
        renewOn: renewOn(file, plan, at),
      },
    )
    await tx.run(
      `INSERT INTO hand_over (piece_id, at, to_name, signature, part, person_id)
          VALUES (:id, :at, :to, :signature, :part, :personId)`,
      { ...{ id, at, to: input.to, part: input.part, personId: person.id }, signature: input.signature || null },
    )
    const says = `Handed over${input.part ? ' part done' : ''} to ${input.to}${input.signature ? ', signed' : ''}`
    return { kind: 'handed-over', says, result: { ok: true } }
  })

/** Takes a hand-over back within a day: the record is open again, and its entry says so. */
export const takeBack = (id: number, rowVersion: number, person: Person, at: Date) =>
  transaction(async tx => {
    const { piece } = await readPiece(tx, id, true)
    if (piece.row_version !== rowVersion) throw stale()
    if (!mayTakeBack(piece, at))
      throw fail(409, 'too-late', 'A hand-over can be taken back for a day. Take the piece in anew.')
    await tx.run(
      `UPDATE piece
          SET state = IF(state = 'part-done', 'active', 'ready'), handed_over_at = NULL, renew_on = NULL,
            renew_leave = FALSE, row_version = row_version + 1
          WHERE id = :id`,
      { id },
    )
    await tx.run('UPDATE hand_over SET back_at = :at WHERE piece_id = :id AND back_at IS NULL', { id, at })
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

export interface HandedOver {
  to_name: string
  at: Date
  signature: string | null
  part: 0 | 1
}
/** Who took it, as it stands; null: it is here. */
export const readHandOver = async (on: Db, id: number): Promise<HandedOver | null> =>
  (await on.row<HandedOver>(
    `SELECT to_name, at, signature, part
        FROM hand_over
        WHERE piece_id = :id AND back_at IS NULL
        ORDER BY id DESC
        LIMIT 1`,
    { id },
  )) ?? null

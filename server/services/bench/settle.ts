/** What came late and could not be entered is settled by somebody; what was entered by a name alone is owned. */
import { wentHome } from '#core/piece'
import type { z } from 'zod'
import type { BenchCommand } from '#shared/schemas'
import type * as s from '#shared/schemas'
import { db, type Db, transaction } from '../../database/db'
import { readPiece } from '../piece/read'
import { readPlan } from '../plan/rows'
import { tell } from '../platform/log'
import type { Person } from '../shop/person'
import { type Act, type Result, write } from './act'
import { follow } from './acts'
import { type LateCommand, tryLate } from './late'
import { bookUsed } from './used'

interface HeldRow {
  id: number
  piece_id: number
  step_id: number
  person_id: number
  kind: BenchCommand['kind']
  happened_at: Date
  says: string
  /** null, or a text, where the row is damaged */
  command: LateCommand
}
/** This act and what the same person did after it on the same step, as far as it is held: all stand or fall. */
const heldFrom = (tx: Db, id: number) =>
  tx.rows<HeldRow>(
    `SELECT a.id, a.piece_id, a.step_id, a.person_id, a.kind, a.happened_at, a.says, a.command
        FROM bench_act a
        JOIN bench_act first ON first.id = :id
        WHERE a.step_id = first.step_id AND a.person_id = first.person_id AND a.state = 'held' AND a.id >= first.id
        ORDER BY a.id
        FOR UPDATE`,
    { id },
  )

const DAY_MS = 86_400_000
const ENDS = ['finish', 'pause', 'hand-on']
/** What I took up last ends at this moment, also where it was taken to last as long as the step. */
const endMine = ({ tx, step, person, at }: Act) =>
  tx.run(
    `UPDATE work_spell
        SET to_at = GREATEST(from_at, :at)
        WHERE step_id = :id AND person_id = :me
        ORDER BY id DESC
        LIMIT 1`,
    { at, id: step.id, me: person.id },
  )
/** Beside whoever worked on it meanwhile: the step reaches as far as both did. */
async function workBeside(act: Act) {
  const { tx, step, person, at } = act
  await tx.run(
    `INSERT INTO work_spell (step_id, person_id, tablet_id, from_at, to_at)
        SELECT :id, :me, :tablet, :at, IF(state = 'running', NULL, GREATEST(:at, finished_at))
          FROM plan_step
          WHERE id = :id`,
    { at, id: step.id, me: person.id, tablet: person.tablet_id },
  )
  await tx.run(
    `UPDATE plan_step SET started_at = LEAST(started_at, :at), row_version = row_version + 1 WHERE id = :id`,
    { at, id: step.id },
  )
}
async function endBeside(act: Act, command: BenchCommand): Promise<string[]> {
  const { tx, step, at } = act
  await endMine(act)
  await tx.run(
    `UPDATE plan_step
        SET finished_at = IF(state = 'done', GREATEST(finished_at, :at), finished_at), row_version = row_version + 1
        WHERE id = :id`,
    { at, id: step.id },
  )
  if (command.kind !== 'finish') return []
  return [...(await bookUsed(act, command.used)), command.note].filter(Boolean)
}

/** One held act as the second pair of hands; what nobody else has done is done as usual. */
async function besides(act: Act, command: BenchCommand): Promise<Result | string> {
  const { step, person } = act
  const begun = step.state === 'running' || step.state === 'done'
  const others = step.spells.some(sp => sp.personId !== person.id && sp.to_ms === null)
  const start = command.kind === 'start' || command.kind === 'go-on'
  const at_ms = act.at.getTime()
  // the same hands on another device count once
  const had = step.spells.some(
    sp => sp.personId === person.id && sp.from_ms <= at_ms && (sp.to_ms ?? Infinity) >= at_ms,
  )
  if (begun && start) {
    if (!had) await workBeside(act)
    return { ok: true, says: '' }
  }
  if (begun && ENDS.includes(command.kind) && (step.state === 'done' || others))
    return { ok: true, says: (await endBeside(act, command)).join('. ') }
  return tryLate(act, command, follow)
}

/** The held acts with other times: the first begins, the last ends. */
function retimed(rows: readonly HeldRow[], from: Date, to: Date): HeldRow[] {
  const last = rows.findLastIndex(r => ENDS.includes(r.kind))
  return rows.map((r, i) => {
    if (i === 0) return { ...r, happened_at: from }
    return i === last ? { ...r, happened_at: to } : r
  })
}

/** Both worked; or they did at other times; or it is taken back. Whose it is, or who may edit a plan, says so. */
export async function settleLate(id: number, input: z.infer<typeof s.settleLate>, by: Person, now: Date) {
  return transaction(async tx => {
    const found = await tx.row<{ piece_id: number }>('SELECT piece_id FROM bench_act WHERE id = :id', { id })
    if (!found) throw notFound('act')
    const file = await readPiece(tx, found.piece_id, true)
    if (wentHome(file.piece.state) && input.way !== 'back')
      throw fail(409, 'handed-over', 'This piece has been handed over; its record is closed. Take it back here.')
    const rows = await heldFrom(tx, id)
    const [first] = rows
    if (first?.id !== id) throw fail(409, 'settled', 'This is settled already.')
    if (first.person_id !== by.id && !by.rights.has('edit-plan'))
      throw fail(403, 'forbidden', 'Whoever did it says what it was, or somebody who may edit the plan.')
    const who = await tx.row<{ id: number; name: string }>('SELECT id, name FROM person WHERE id = :id', {
      id: first.person_id,
    })
    const person: Person = { ...by, id: who!.id, name: who!.name }
    let list = rows
    if (input.way === 'times') {
      const [from, to] = [new Date(input.from), new Date(input.to)]
      if (from.getTime() < first.happened_at.getTime() - DAY_MS) {
        const says = 'That is more than a day before what was told.'
        throw fail(422, 'invalid', says, { from: says })
      }
      if (to < from) throw fail(422, 'invalid', 'It ends before it begins.', { to: 'It ends before it begins.' })
      if (to > now) throw fail(422, 'invalid', 'This has not happened yet.', { to: 'This has not happened yet.' })
      list = retimed(rows, from, to)
    }
    const said: string[] = []
    let act: Act | undefined
    for (const row of list) {
      if (input.way !== 'back' && !row.command?.kind)
        throw fail(409, 'cannot-enter', `${row.says}: what was sent can no longer be read. Take it back.`)
      const plan = await readPlan(tx, file)
      const step = plan.steps.find(st => st.id === row.step_id)!
      act = { tx, file, plan, step, now, person, at: row.happened_at, against: [] }
      const done = input.way === 'back' ? null : await besides(act, row.command)
      if (typeof done === 'string') throw fail(409, 'cannot-enter', `${row.says}: ${done}`)
      await tx.run('UPDATE bench_act SET state = :state, happened_at = :at WHERE id = :id', {
        ...{ id: row.id, at: row.happened_at, state: input.way === 'back' ? 'back' : 'settled' },
      })
      said.push([row.says, done?.says].filter(Boolean).join('. '))
    }
    if (input.way === 'times' && !list.some(r => ENDS.includes(r.kind)))
      await endMine({ ...act!, at: new Date(input.to) })
    const how = { both: 'Worked on together', times: 'Worked on together, times corrected', back: 'Taken back' }
    const says = `${how[input.way]}: ${said.join('. ')}`
    await write({ ...act!, at: now, person: by }, 'late', says)
    await tell(tx, 'piece', file.piece.id, now)
    return { ok: true, says }
  })
}

/** Was it this person? What it was not stays entered, and the owner is told. */
export async function nameLate({ ids, mine }: z.infer<typeof s.nameLate>, by: Person, now: Date) {
  return transaction(async tx => {
    const rows = await tx.rows<{ id: number; piece_id: number; step_id: number; says: string }>(
      `SELECT id, piece_id, step_id, says
          FROM bench_act
          WHERE id IN (:ids) AND person_id = :me AND by_name AND mine IS NULL
          FOR UPDATE`,
      { ids, me: by.id },
    )
    if (rows.length === 0) throw fail(409, 'settled', 'This is settled already.')
    const not = `${by.name} says: not me`
    await tx.run(
      `UPDATE bench_act SET mine = :mine, why = IF(:mine, why, :not), seen_at = IF(:mine, seen_at, NULL)
          WHERE id IN (:ids)`,
      { mine, not, ids: rows.map(r => r.id) },
    )
    for (const r of rows)
      await tx.run(
        `INSERT INTO logbook (piece_id, step_id, kind, says, happened_at, recorded_at, person_id)
            VALUES (:piece_id, :step_id, 'late', :said, :now, :now, :me)`,
        {
          ...r,
          now,
          me: by.id,
          said: `${mine ? 'By name only, and it was' : 'By name only, and not'} ${by.name}: ${r.says}`,
        },
      )
    for (const piece of new Set(rows.map(r => r.piece_id))) await tell(tx, 'piece', piece, now)
    return { ok: true }
  })
}

/** The owner has seen which rule was broken. */
export const seeLate = (id: number, now: Date) =>
  transaction(async tx => {
    const { changed } = await tx.run('UPDATE bench_act SET seen_at = :now WHERE id = :id AND seen_at IS NULL', {
      id,
      now,
    })
    if (!changed) throw fail(409, 'settled', 'This is settled already.')
    await tell(tx, 'alarm', null, now)
    return { ok: true }
  })

/** What came late and waits for a word: held, by a name alone, or against a rule. */
export const readLate = (since: Date) =>
  db().rows<{
    id: number
    pieceId: number
    piece: string
    stepId: number
    personId: number
    by: string
    says: string
    happened_at: Date
    held: 0 | 1
    byName: 0 | 1
    broke: 0 | 1
    why: string | null
  }>(
    `SELECT a.id, a.piece_id AS pieceId, piece.name AS piece, a.step_id AS stepId, a.person_id AS personId,
        p.name AS \`by\`, a.says, a.happened_at, a.state = 'held' AS held,
        a.by_name AND a.mine IS NULL AS byName,
        a.state = 'entered' AND a.why IS NOT NULL AND a.seen_at IS NULL AS broke, a.why
        FROM bench_act a
        JOIN person p ON p.id = a.person_id
        JOIN piece ON piece.id = a.piece_id
        WHERE a.late AND a.state <> 'back' AND a.came_at > :since
          AND (
            a.state = 'held'
            OR a.state = 'entered' AND a.why IS NOT NULL AND a.seen_at IS NULL
            OR a.by_name AND a.mine IS NULL
          )
        ORDER BY a.id
        LIMIT 100`,
    { since },
  )

/** A step in hand: put aside, gone on with, handed on, worked in two. Windows run on whoever has it. */
import { inHand, type Spell } from '#core/timetable'
import type { BenchCommand } from '#shared/schemas'
import { clockIn, readHours } from '../shop/rows'
import { atTheBench } from '../shop/person'
import { type Act, type Result, write } from './act'

const takeUp = ({ tx, step, person, at }: Act, personId: number) =>
  tx.run(
    `INSERT INTO work_spell (step_id, person_id, tablet_id, from_at)
        VALUES (:stepId, :personId, :tabletId, :at)`,
    { stepId: step.id, personId, tabletId: person.tablet_id, at },
  )
/** Who starts a step has it in hand. */
export const firstSpell = (act: Act) => takeUp(act, act.person.id)

/** Whoever has it in hand puts it down at this moment; what was taken up only later lasts no time. */
export const endSpells = ({ tx, step, at }: Act) =>
  tx.run('UPDATE work_spell SET to_at = GREATEST(from_at, :at) WHERE step_id = :id AND to_at IS NULL', {
    id: step.id,
    at,
  })
/** What ended with the step goes on, when its end is taken back. */
export const reopenSpells = ({ tx, step }: Act) =>
  tx.run('UPDATE work_spell SET to_at = NULL WHERE step_id = :id AND to_at = :end', {
    id: step.id,
    end: new Date(step.finished_ms ?? 0),
  })
export const dropSpells = ({ tx, step }: Act) => tx.run('DELETE FROM work_spell WHERE step_id = :id', { id: step.id })

const raise = ({ tx, step }: Act) =>
  tx.run('UPDATE plan_step SET row_version = row_version + 1 WHERE id = :id', { id: step.id })

async function told(act: Act, kind: string, says: string): Promise<Result> {
  await raise(act)
  await write(act, kind, says)
  return { ok: true, says }
}

function running({ step }: Act): Spell[] {
  if (step.state !== 'running') throw fail(409, 'not-running', 'Start the step first.')
  return inHand(step.spells)
}

/** Somebody of the bench, by id; nobody named: who acts. */
async function hands({ tx, person }: Act, personId: number | undefined): Promise<{ id: number; name: string }> {
  if (personId === undefined || personId === person.id) return person
  const other = await tx.row<{ id: number; name: string }>(
    `SELECT p.id, p.name FROM person p WHERE p.id = :personId AND ${atTheBench('p')}`,
    { personId },
  )
  if (!other) throw fail(422, 'invalid', 'Choose somebody who works at the bench.', { personId: 'Choose a person.' })
  return other
}

/** Not before anything that was said of these hands already. */
function after(act: Act, spells: readonly Spell[]) {
  const last = Math.max(...spells.map(s => s.to_ms ?? s.from_ms))
  if (act.at.getTime() < last)
    throw fail(422, 'before-start', 'That lies before what was said last. Correct the times on the plan instead.')
}

export async function pause(act: Act): Promise<Result> {
  const open = running(act)
  if (open.length === 0) throw fail(409, 'paused', 'It is put aside already.')
  after(act, open)
  await endSpells(act)
  return told(act, 'paused', `Put aside: ${act.step.title}`)
}

export async function goOn(act: Act, personId?: number): Promise<Result> {
  const open = running(act)
  const who = await hands(act, personId)
  if (open.some(s => s.personId === who.id)) throw fail(409, 'in-hand', `${who.name} has it in hand already.`)
  after(
    act,
    act.step.spells.filter(s => s.personId === who.id || open.length === 0),
  )
  await takeUp(act, who.id)
  return told(act, 'gone-on', `${open.length ? 'Helps' : 'Goes on'}, ${who.name}: ${act.step.title}`)
}

export async function handOn(act: Act, personId: number): Promise<Result> {
  const open = running(act)
  const who = await hands(act, personId)
  if (open.length === 1 && open[0]!.personId === who.id)
    throw fail(409, 'in-hand', `${who.name} has it in hand already.`)
  after(act, act.step.spells)
  await endSpells(act)
  await takeUp(act, who.id)
  return told(act, 'handed-on', `Handed on to ${who.name}: ${act.step.title}`)
}

/** Takes the last pause, going on or handing on back. */
export async function spellBack(act: Act): Promise<Result> {
  running(act)
  const { spells } = act.step
  const moments = spells.flatMap((s, i) => [...(i > 0 ? [s.from_ms] : []), ...(s.to_ms === null ? [] : [s.to_ms])])
  if (moments.length === 0) throw fail(409, 'nothing', 'There is nothing to take back here.')
  const last = Math.max(...moments)
  const begun = spells.filter((s, i) => i > 0 && s.from_ms === last).map(s => s.id)
  const ended = spells.filter(s => s.to_ms === last && !begun.includes(s.id)).map(s => s.id)
  if (begun.length) await act.tx.run('DELETE FROM work_spell WHERE id IN (:begun)', { begun })
  if (ended.length) await act.tx.run('UPDATE work_spell SET to_at = NULL WHERE id IN (:ended)', { ended })
  return told(act, 'undone', `Taken back: who had it in hand, ${act.step.title}`)
}

/** The times of one spell, put right with a word. */
export async function correctSpell(act: Act, command: Extract<BenchCommand, { kind: 'correct' }>): Promise<Result> {
  const { step, now } = act
  const spell = step.spells.find(s => s.id === command.spellId)
  if (!spell) throw notFound('time')
  const from_ms = Date.parse(command.from)
  const to_ms = command.to === null ? null : Date.parse(command.to)
  const end_ms = step.finished_ms ?? now.getTime()
  const refuse = (says: string, field: 'from' | 'to') => fail(422, 'invalid', says, { [field]: says })
  const clock = clockIn((await readHours(act.tx)).zone, now)
  if (to_ms === null && step.state !== 'running') throw refuse('The step is done: say when it ended.', 'to')
  if (to_ms !== null && to_ms < from_ms) throw refuse('It ends before it begins.', 'to')
  if (from_ms < step.started_ms!) throw refuse(`The step was started at ${clock(step.started_ms!)}.`, 'from')
  if ((to_ms ?? from_ms) > end_ms) throw refuse(`Not later than ${clock(end_ms)}.`, to_ms === null ? 'from' : 'to')
  const over = step.spells.find(
    s =>
      s.id !== spell.id &&
      s.personId === spell.personId &&
      from_ms < (s.to_ms ?? Infinity) &&
      (to_ms ?? Infinity) > s.from_ms,
  )
  if (over) throw refuse(`${over.by} had it in hand from ${clock(over.from_ms)} already.`, 'from')
  await act.tx.run('UPDATE work_spell SET from_at = :from, to_at = :to WHERE id = :id', {
    id: spell.id,
    from: new Date(from_ms),
    to: to_ms === null ? null : new Date(to_ms),
  })
  const span = (from: number, to: number | null) => `${clock(from)} to ${to === null ? 'now' : clock(to)}`
  return told(
    act,
    'corrected',
    `Corrected, ${spell.by}: ${span(spell.from_ms, spell.to_ms)} becomes ${span(from_ms, to_ms)}, ${step.title}. ` +
      command.word,
  )
}

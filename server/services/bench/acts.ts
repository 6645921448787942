import { wentHome } from '#core/piece'
import { type Fields, makesDust, measuredSaid, withTaken } from '#core/acts'
import { ONCE_MORE, roundEndingAt, seenAt, withOneMore, withPaintWash } from '#core/plan'
import { potEnds_ms, worked_min } from '#core/timetable'
import type { BenchCommand } from '#shared/schemas'
import { transaction } from '../../database/db'
import { keepBegun } from '../client/ask'
import { readPiece } from '../piece/read'
import { planAgain } from '../plan/edits'
import { startVerdictsOf } from '../plan/judge'
import { type PlannedStep, readPlan } from '../plan/rows'
import { readWetCoat } from '../plan/wetCoat'
import { tell } from '../platform/log'
import { readStepAir } from '../shop/roomAir'
import { readVapour } from '../breath/vapour'
import type { Person } from '../shop/person'
import { clockIn, readHours } from '../shop/rows'
import { type Act, MINUTE_MS, type Result, write } from './act'
import { dropStarted, keepStarted, look } from './dry'
import { fallBack, gateBack } from './gate'
import { enterLate, keepAct, noteLost } from './late'
import { keepMeasured } from './measured'
import { layFirst, layRest, section, sectionsAt, takeRest } from './sections'
import { correctSpell, dropSpells, endSpells, firstSpell, goOn, handOn, pause, reopenSpells, spellBack } from './spells'
import { bookUsed, giveBack } from './used'
import { benchView } from './view'

const LONGEST_AGO_MIN = 12 * 60

/** What an act does, by its kind. */
export function follow(act: Act, command: BenchCommand): Promise<Result> {
  switch (command.kind) {
    case 'start':
      return start(act, command.outside)
    case 'finish':
      return finish(act, command)
    case 'pause':
      return pause(act)
    case 'go-on':
      return goOn(act, command.personId)
    case 'hand-on':
      return handOn(act, command.personId)
    case 'spell-back':
      return spellBack(act)
    case 'correct':
      return correctSpell(act, command)
    case 'note':
      return note(act, command.says)
    case 'not-dry':
    case 'dry':
      return look(act, command)
    case 'mixed':
      return mixed(act)
    case 'section':
      return section(act, command.what)
    case 'undo':
      return undo(act)
  }
}

/** An act at the bench. `byName`: nobody could look whether it is this person. */
export async function actAtBench(command: BenchCommand, person: Person, now: Date, byName = false): Promise<Result> {
  return transaction(async tx => {
    const owner = await tx.row<{ piece_id: number }>('SELECT piece_id FROM plan_step WHERE id = :stepId', {
      stepId: command.stepId,
    })
    if (!owner && command.late) return noteLost(tx, command, person, now)
    if (!owner) throw notFound('step')
    const file = await readPiece(tx, owner.piece_id, true)
    if (file.piece.state === 'enquiry' || file.piece.state === 'declined')
      throw fail(409, 'not-in', 'This piece is not in the shop: it is only asked about. Say first that it came in.')
    if (wentHome(file.piece.state))
      throw fail(409, 'handed-over', 'This piece has been handed over; its record is closed.')
    const plan = await readPlan(tx, file)
    const step = plan.steps.find(st => st.id === command.stepId)!
    const act: Act = { tx, file, plan, step, now, person, at: now, against: command.late ? [] : null }
    const result = command.late ? await enterLate(act, command, byName, follow) : await enter(act, command)
    await tell(tx, 'piece', file.piece.id, now)
    return result
  })
}

async function enter(act: Act, command: BenchCommand): Promise<Result> {
  if (act.step.rowVersion !== command.rowVersion) throw stale()
  const timed = { ...act, at: momentOf(command, act.step, act.now) }
  const result = await follow(timed, command)
  await keepAct(timed, command.kind)
  return result
}

/** When it happened: not in the future (a tablet's clock may run two minutes ahead), not before half a day. */
function momentOf({ kind, happenedAt }: BenchCommand, step: PlannedStep, now: Date): Date {
  const at = new Date(happenedAt)
  // what was left in hand over night, or over a weekend, ended when it ended
  const ends = (kind === 'finish' || kind === 'pause') && step.state === 'running'
  if (at.getTime() > now.getTime() + 2 * MINUTE_MS) throw fail(422, 'future', 'This has not happened yet.')
  if (!ends && at.getTime() < now.getTime() - LONGEST_AGO_MIN * MINUTE_MS)
    throw fail(422, 'too-long-ago', 'That is more than twelve hours ago. Write it into the log instead.')
  return at.getTime() > now.getTime() ? now : at
}

async function start(act: Act, outside: boolean): Promise<Result> {
  const { tx, file, plan, step, at, person } = act
  const hours = await readHours(tx)
  if (outside && !makesDust(step))
    throw fail(422, 'invalid', 'Only dusty work is carried outside.', { outside: 'It makes no dust.' })
  const airOf = await readStepAir(at, tx)
  const verdict = benchView({
    plan,
    verdicts: startVerdictsOf(file, plan, at),
    hours,
    at,
    shelf: file.context.shelf,
    airOf,
    wetCoat: await readWetCoat(tx, at, clockIn(hours.zone, at)),
    vapourOf: await readVapour(at, tx),
    outside,
  }).get(step.key)!
  const [refused] = verdict.refusals
  if (refused && !verdict.may) {
    const says = verdict.refusals.map(r => r.says).join(' ')
    if (!act.against || step.state !== 'planned') throw fail(409, refused.code, says)
    act.against.push(says)
  }
  if (!plan.steps.some(st => st.kind !== 'approval' && st.started_ms !== null)) await keepBegun(tx, file, plan, at)
  await tx.run(
    `UPDATE plan_step
        SET state = 'running', started_at = :at, started_by = :personId, label_id = :label, outside = :outside,
          row_version = row_version + 1
        WHERE id = :id`,
    { at, personId: person.id, label: step.label, outside, id: step.id },
  )
  await layFirst(act)
  await firstSpell(act)
  // what was begun against a rule says nothing of how dry it was
  if (!act.against?.length) await keepStarted(act)
  const knowing = verdict.warnings.length ? `. Knowing: ${verdict.warnings.join(' ')}` : ''
  const against = act.against?.length ? `. Against it: ${act.against.join(' ')}` : ''
  await write(act, 'started', `Started${outside ? ' outside' : ''}: ${step.title}${against}${knowing}`)
  return { ok: true, says: step.title }
}

async function finish(act: Act, command: Extract<BenchCommand, { kind: 'finish' }>): Promise<Result> {
  const { tx, step, at, person } = act
  if (step.state !== 'running') throw fail(409, 'not-running', 'This step is not running.')
  if (step.started_ms !== null && at.getTime() < step.started_ms)
    throw fail(422, 'before-start', 'It cannot end before it started.')
  const its = sectionsAt(step, act.plan, act.file)
  if (its?.takes && its.on.state === 'running')
    throw fail(409, 'earlier-step', `"${its.on.title}" still runs: end that first, or what it lays is forgotten.`)
  if (step.gate && !command.gate)
    throw fail(422, 'gate', 'Judge the gate: passed or failed?', { gate: 'Passed or failed?' })
  if (step.gate && command.gate === 'fail' && !command.note.trim())
    throw fail(422, 'gate-word', 'Say in a word what was seen: it goes with the price.', { note: 'What was seen?' })
  const seen = command.seen
  if (seen && !seenAt(step, laterThan(act)).includes(seen))
    throw fail(422, 'seen', 'This step does not ask for that.', { seen: 'Not asked here.' })
  const measured = withTaken(command.measured)
  const used = await bookUsed(act, command.used)
  await tx.run(
    `UPDATE plan_step
        SET state = 'done', finished_at = :at, finished_by = :personId, gate_result = :gate, measured = :measured,
          row_version = row_version + 1
        WHERE id = :id`,
    {
      at,
      personId: person.id,
      gate: step.gate ? command.gate : null,
      measured: JSON.stringify(measured),
      id: step.id,
    },
  )
  await endSpells(act)
  await keepMeasured(act, measured)
  await layRest(act)
  await takeRest(act)
  const minutes = Math.round(worked_min(step.spells, at.getTime()))
  const says = [
    `Done: ${step.title}, ${minutes} min (planned ${step.attended_min})`,
    ...used,
    step.gate
      ? `Gate ${command.gate === 'pass' ? 'passed' : 'failed'}: ` +
        `${command.gate === 'pass' ? step.gate.look : step.gate.fails}`
      : '',
    measuredSaid(measured),
    command.note,
  ]
    .filter(Boolean)
    .map(s => s.replace(/\.$/, ''))
    .join('. ')
  await write(act, step.gate ? 'gate' : 'finished', says)
  if (step.gate && command.gate === 'fail') return fallBack(act, seen)
  if (seen === 'orange') {
    await planAgain(tx, act.file, await readPlan(tx, act.file), old => withPaintWash(old, step))
    const put = 'Orange left: a paint wash before what covers it'
    await write(act, 'plan', put)
    return { ok: true, says: `${says}. ${put}` }
  }
  const more = command.again.length ? await oneMore(act, command.again, command.strength) : null
  if (more) return { ok: true, says: `${says}. ${more}` }
  if (!act.plan.steps.some(st => st.id !== step.id && (st.state === 'planned' || st.state === 'running'))) {
    await tx.run("UPDATE piece SET state = 'ready', ready_at = :at, row_version = row_version + 1 WHERE id = :id", {
      id: act.file.piece.id,
      at: act.now,
    })
    await tell(tx, 'pieces', act.file.piece.id, act.now)
    await write(act, 'ready', 'Ready for the client')
  }
  return { ok: true, says }
}

const laterThan = ({ plan, step }: Act) => plan.steps.slice(plan.steps.findIndex(st => st.id === step.id) + 1)

/** One more round of what did not pass, on these faces: its steps with their minutes, amounts, waits and cautions. */
async function oneMore(act: Act, faces: readonly number[], strength?: Fields['strength']): Promise<string> {
  const { tx, file, step, plan } = act
  const live = plan.steps.filter(st => st.state !== 'skipped')
  const loop = roundEndingAt(live, step.key, file.context)
  if (!loop) throw fail(422, 'no-round', 'This step has no round that could be done once more.')
  const on = faces.filter(f => step.faces.includes(f))
  if (on.length === 0)
    throw fail(422, 'invalid', 'Choose faces that this step was done on.', { again: 'Choose its faces.' })
  await planAgain(tx, file, await readPlan(tx, file), old => withOneMore(old, loop, on, strength))
  const names = file.faces.filter(f => on.includes(f.id)).map(f => `${f.part}, ${f.name}`)
  const says = `One more round${strength ? `, ${strength}` : ''}: ${names.join(' · ')}`
  await write(act, 'plan', says)
  return says
}

/** A word on a step, whatever state it is in. */
async function note(act: Act, says: string): Promise<Result> {
  await write(act, 'note', `${act.step.title}: ${says}`)
  return { ok: true, says: 'Noted.' }
}

/** "Mixed": the pot of a two-part product begins its life; touched again, a new pot. */
async function mixed(act: Act): Promise<Result> {
  const { tx, file, step, at } = act
  if (step.state !== 'planned' && step.state !== 'running')
    throw fail(409, 'done', 'This step is done; nothing is mixed for it any more.')
  const air = (await readStepAir(at, tx))(step.id)
  const ends_ms = potEnds_ms({ ...step, mixed_ms: at.getTime() }, air, file.context.shelf)
  if (ends_ms === null) throw fail(422, 'no-pot', 'This product is not mixed from two parts, or its pot does not set.')
  await tx.run('UPDATE plan_step SET mixed_at = :at, row_version = row_version + 1 WHERE id = :id', { at, id: step.id })
  const says = `Mixed for: ${step.title}. Use the pot by ${clockIn((await readHours(tx)).zone, at)(ends_ms)}`
  await write(act, 'mixed', says)
  return { ok: true, says }
}

/** The round that "it did not pass" added, or what was seen, goes again, as long as nobody has begun it. */
async function dropAddedRound({ tx, file, plan, step }: Act): Promise<void> {
  const after = plan.steps.slice(plan.steps.findIndex(st => st.id === step.id) + 1)
  const end = after.findIndex(st => st.why !== ONCE_MORE || st.state !== 'planned')
  const seen = after.filter(st => st.why === ONCE_MORE && st.state === 'planned' && st.key.startsWith(`${step.key}.`))
  const added = new Set([...after.slice(0, end < 0 ? undefined : end), ...seen].map(st => st.key))
  if (added.size === 0) return
  const fresh = await readPlan(tx, file)
  await planAgain(tx, file, fresh, old => old.filter(st => !added.has(st.key)))
}

/** Takes the last act on a step back by a compensating entry; what it used goes back to its lots. */
async function undo(act: Act): Promise<Result> {
  const { tx, plan, step, file } = act
  const index = plan.steps.findIndex(st => st.id === step.id)
  if (step.kind === 'approval') throw fail(409, 'answer', 'An answer is superseded only by a newer one.')
  if (step.state !== 'running' && step.state !== 'done')
    throw fail(409, 'nothing', 'There is nothing to take back here.')
  if (
    plan.steps
      .slice(index + 1)
      .some(st => st.faces.some(f => step.faces.includes(f)) && (st.state === 'running' || st.state === 'done'))
  )
    throw fail(409, 'later', 'A later step has started since; take that back first.')
  if (step.gateResult === 'fail') await gateBack(act)
  const last = await tx.row<{ id: number }>(
    "SELECT id FROM logbook WHERE step_id = :id AND kind IN ('started', 'finished', 'gate') ORDER BY id DESC LIMIT 1",
    { id: step.id },
  )
  if (step.state === 'done') {
    await giveBack(act)
    await tx.run('DELETE FROM dry_look WHERE step_id = :id', { id: step.id })
    await tx.run(
      `UPDATE plan_step
          SET state = 'running', finished_at = NULL, finished_by = NULL, gate_result = NULL, measured = NULL,
            row_version = row_version + 1
          WHERE id = :id`,
      { id: step.id },
    )
    await reopenSpells(act)
    await dropAddedRound(act)
    await tx.run(
      `UPDATE piece
          SET state = 'active', ready_at = NULL, row_version = row_version + 1
          WHERE id = :id AND state = 'ready'`,
      { id: file.piece.id },
    )
  } else {
    await tx.run(
      `UPDATE plan_step
          SET state = 'planned', started_at = NULL, started_by = NULL, outside = FALSE, row_version = row_version + 1
          WHERE id = :id`,
      { id: step.id },
    )
    await tx.run('DELETE FROM step_section WHERE step_id = :id', { id: step.id })
    await dropSpells(act)
    await dropStarted(act)
  }
  const says = `Taken back: ${step.state === 'done' ? 'the end' : 'the start'} of ${step.title}`
  await write(act, 'undone', says, last?.id)
  return { ok: true, says }
}

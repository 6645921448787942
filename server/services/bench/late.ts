/**
 * What was done without a line and comes in late. It happened, so it is entered, also where a rule spoke against it or
 * the plan has changed since. Only what another person did on the same step meanwhile holds it: then somebody settles
 * it (settle.ts).
 */
import { wentHome } from '#core/piece'
import type { H3Event } from 'h3'
import type { BenchCommand, Late } from '#shared/schemas'
import { acting, type Db } from '../../database/db'
import { log, tell } from '../platform/log'
import type { Person } from '../shop/person'
import { clockIn, readHours } from '../shop/rows'
import { currentTablet, personNamed, sessionPerson } from '../shop/sessions'
import { type Act, MINUTE_MS, type Result, write } from './act'

export type LateCommand = BenchCommand & { late: Late }
const LONGEST_H = 72
/** Acts that move a step or the hands on it: two people's meet there. */
const MOVES = ['start', 'finish', 'pause', 'go-on', 'hand-on', 'spell-back', 'section', 'undo']
const SAYS: Record<string, string> = {
  'start': 'started',
  'finish': 'ended',
  'pause': 'put aside',
  'go-on': 'gone on with',
  'hand-on': 'handed on',
  'spell-back': 'hands taken back',
  'section': 'a section',
  'undo': 'taken back',
}

/**
 * Who did what is sent: whoever is signed in, or on a tablet of the shop whoever it names.
 * @throws Fail 401 or 403 where neither is so.
 */
export async function whoActs(
  event: H3Event,
  person: Person | null,
  late: Pick<Late, 'personId' | 'byName'> | undefined,
): Promise<{ person: Person; byName: boolean }> {
  const signed = person ?? (late && (await sessionPerson(event)))
  if (signed && !person && !signed.rights.has('work')) throw fail(403, 'forbidden', 'Your role has no right to this.')
  if (signed && (!late || late.personId === signed.id)) return { person: signed, byName: late?.byName ?? false }
  const tablet = late && (await currentTablet(event))
  if (!tablet) throw fail(401, 'signed-out', late ? 'Sign in as whoever did this; then it goes in.' : 'Sign in first.')
  return { person: await personNamed(late.personId, tablet), byName: true }
}

/** Keeps which number an act left its step at. */
export const keepAct = (
  { tx, file, step, person, at, now }: Act,
  kind: string,
  more: { late?: LateCommand; held?: boolean; why?: string | null; byName?: boolean } = {},
) =>
  tx.run(
    `INSERT INTO bench_act (
        uuid, piece_id, step_id, person_id, tablet_id, kind, happened_at, came_at, step_version, state, late, says,
        command, why, by_name
      )
        SELECT :uuid, :pieceId, :stepId, :personId, :tabletId, :kind, :at, :now, row_version,
            IF(:held, 'held', 'entered'), :late, :says, :command, :why, :byName
          FROM plan_step
          WHERE id = :stepId`,
    {
      ...{ kind, at, now, pieceId: file.piece.id, stepId: step.id, personId: person.id, tabletId: person.tablet_id },
      uuid: acting.getStore()?.uuid ?? crypto.randomUUID(),
      late: Boolean(more.late),
      held: more.held ?? false,
      says: more.late?.late.says ?? '',
      command: more.late ? JSON.stringify(more.late) : null,
      why: more.why?.slice(0, 1000) ?? null,
      byName: more.byName ?? false,
    },
  )

/** When it happened by the device's clock: what lies ahead of the server's is now. @throws Fail 422 after 72 hours. */
function lateMoment(happenedAt: string, now: Date): Date {
  const at = new Date(happenedAt)
  if (at.getTime() < now.getTime() - LONGEST_H * 60 * MINUTE_MS)
    throw fail(422, 'too-long-ago', 'That is more than three days ago. Write it into the log instead.')
  return at.getTime() > now.getTime() ? now : at
}

/** Why it cannot be entered: what somebody else did on this step meanwhile, or what it follows is held itself. */
async function heldBy(act: Act, command: LateCommand): Promise<string | null> {
  const { tx, step, person } = act
  if (!MOVES.includes(command.kind)) return null
  const { follows } = command.late
  const before = follows
    ? await tx.row<{ step_version: number; state: string }>(
        'SELECT step_version, state FROM bench_act WHERE uuid = :follows AND step_id = :id',
        { follows, id: step.id },
      )
    : null
  if (before?.state === 'held') return 'It follows what is held itself.'
  const theirs = await tx.rows<{ kind: string; happened_at: Date; name: string }>(
    `SELECT a.kind, a.happened_at, p.name
        FROM bench_act a
        JOIN person p ON p.id = a.person_id
        WHERE a.step_id = :id AND a.step_version > :known AND a.person_id <> :personId
          AND a.state = 'entered' AND a.kind IN (:moves)
        ORDER BY a.id`,
    { id: step.id, known: before?.step_version ?? command.rowVersion, personId: person.id, moves: MOVES },
  )
  if (theirs.length === 0) return null
  const clock = clockIn((await readHours(tx)).zone, act.now)
  return theirs.map(t => `${t.name}: ${SAYS[t.kind] ?? t.kind} ${clock(t.happened_at.getTime())}`).join('. ')
}

type Follow = (act: Act, command: BenchCommand) => Promise<Result>
/** Does it as if it were done now, or says why that cannot be. What was half done is undone. */
export async function tryLate(act: Act, command: BenchCommand, follow: Follow): Promise<Result | string> {
  const { tx } = act
  await tx.run('SAVEPOINT late')
  try {
    return await follow(act, command)
  } catch (error) {
    if (!(error instanceof Fail)) throw error
    await tx.run('ROLLBACK TO SAVEPOINT late')
    return error.problem.message
  }
}

/** Enters what comes late, or holds it. */
export async function enterLate(act: Act, command: BenchCommand, byName: boolean, follow: Follow): Promise<Result> {
  const late = command as LateCommand
  const timed = { ...act, at: lateMoment(command.happenedAt, act.now) }
  const why = await heldBy(timed, late)
  const done = why ?? (await tryLate(timed, command, follow))
  if (typeof done === 'string') {
    await keepAct(timed, command.kind, { late, held: true, why: done, byName })
    const says = `Held, without a line: ${late.late.says}. ${done}`
    await write(timed, 'late', says)
    return { ok: true, says, held: true }
  }
  const against = timed.against?.join(' ') || null
  await keepAct(timed, command.kind, { late, why: against, byName })
  if (byName) await write(timed, 'late', `By name only, without a line: ${late.late.says}`)
  return done
}

/** Its step is in the plan no more: what was done is told in the log. */
export async function noteLost(tx: Db, command: BenchCommand, person: Person, now: Date): Promise<Result> {
  const { pieceId, says: was } = command.late!
  const piece = await tx.row<{ state: string }>('SELECT state FROM piece WHERE id = :pieceId', { pieceId })
  if (!piece) throw notFound('piece')
  if (wentHome(piece.state)) throw fail(409, 'handed-over', 'This piece has been handed over; its record is closed.')
  const says = `Done without a line, on a step that is no longer in the plan: ${was}`
  const at = lateMoment(command.happenedAt, now)
  await log(tx, { pieceId, kind: 'late', says, at, recordedAt: now, personId: person.id })
  await tell(tx, 'piece', pieceId, now)
  return { ok: true, says }
}

/** Looks at what dries: kept with the air and the time that had passed, so that the shop's own dry times can follow. */
import { does } from '#core/acts'
import { DRY_SAYS, lookAgain_min } from '#core/drying'
import { taken } from '#core/materials'
import { nextSpan } from '#core/timetable'
import type { BenchCommand } from '#shared/schemas'
import type { PlannedStep } from '../plan/rows'
import { readStepAir } from '../shop/roomAir'
import { clockIn, readHours } from '../shop/rows'
import { type Act, MINUTE_MS, type Result, write } from './act'

const LONGEST_MS = 60 * 86_400_000
type Look = Extract<BenchCommand, { kind: 'not-dry' | 'dry' }>

/** What dries under a step that waits; a step that lays something is looked at itself, unasked. */
function drying({ plan, step }: Act): PlannedStep[] {
  if (step.state === 'done') return does(step, 'lingers') ? [step] : []
  const from = plan.waits.filter(w => w.to === step.key && w.kind !== 'order' && w.kind !== 'answer').map(w => w.from)
  return plan.steps.filter(st => from.includes(st.key) && st.finished_ms !== null)
}

interface Seen {
  dry: boolean
  by: Look['by']
  started: boolean
}
async function keep(act: Act, { dry, by, started }: Seen, from: PlannedStep) {
  const { tx, file, plan, step, at, person } = act
  const air = (await readStepAir(at, tx))(from.id)
  const wait = plan.waits.find(w => w.from === from.key && (step === from || w.to === step.key) && w.expected)
  await tx.run(
    `INSERT INTO dry_look (
        piece_id, step_id, before_id, dry, tried, started, product, label_id, wet_um, elapsed_min, expected_min,
        temperature_C, rh, person_id, at
      )
        VALUES (
          :pieceId, :stepId, :beforeId, :dry, :by, :started, :product, :label, :wet, :elapsed, :expected,
          :temperature, :rh, :personId, :at
        )`,
    {
      ...{ by, at, dry, started },
      pieceId: file.piece.id,
      stepId: from.id,
      beforeId: from.id === step.id ? null : step.id,
      product: from.product,
      label: from.label ?? null,
      wet: taken(file.context.shelf, from)?.wet_um ?? null,
      elapsed: Math.max(0, at.getTime() - from.finished_ms!) / MINUTE_MS,
      expected: wait?.expected ?? null,
      temperature: air?.temperature_C ?? null,
      rh: air?.rh ?? null,
      personId: person.id,
    },
  )
}

/** What is begun was dry enough by then. */
export async function keepStarted(act: Act): Promise<void> {
  const { plan, step } = act
  const from = plan.steps.filter(st => st.finished_ms !== null && st.finished_ms < act.at.getTime())
  for (const st of from)
    if (plan.waits.some(w => w.from === st.key && w.to === step.key && w.expected))
      await keep(act, { dry: true, by: null, started: true }, st)
}
/** It was not begun after all. */
export const dropStarted = ({ tx, step }: Act) =>
  tx.run('DELETE FROM dry_look WHERE before_id = :id AND started', { id: step.id })

/** "Dry" or "not dry yet", and by what; not dry holds back what waits for it until the next look. */
export async function look(act: Act, command: Look): Promise<Result> {
  const { tx, file, plan, step, at, now } = act
  const tried = command.by ? DRY_SAYS[command.by] : null
  const seen = tried ? `. ${tried.by}: ${command.kind === 'dry' ? tried.dry : tried.not}` : ''
  const own = step.state === 'planned' ? ('to' as const) : ('from' as const)
  const into = plan.waits.filter(w => w.kind !== 'order' && w.kind !== 'answer' && w[own] === step.key)
  const from = drying(act)
  const waits = command.kind === 'dry' ? from.length > 0 : into.length > 0
  if (!waits || (step.state !== 'planned' && step.state !== 'done'))
    throw fail(409, 'nothing-dries', 'Nothing is drying here.')
  const shown = { dry: command.kind === 'dry', by: command.by, started: false }
  for (const st of from) await keep(act, shown, st)
  const hold = async (until: Date, over: typeof into) => {
    for (const w of over)
      await tx.run(
        `INSERT INTO wait_said (piece_id, from_key, to_key, held_until)
            VALUES (:pieceId, :from, :to, :until)
            ON DUPLICATE KEY UPDATE held_until = VALUES(held_until)`,
        { until, pieceId: file.piece.id, from: w.from, to: w.to },
      )
  }
  if (command.kind === 'dry') {
    // the next look that somebody set is not waited for any longer
    await hold(
      at,
      into.filter(w => w.held_ms !== null && w.held_ms > at.getTime()),
    )
    const says = `Dry: ${from.map(st => st.title).join(', ')}${seen}`
    await write(act, 'dry', says)
    return { ok: true, says }
  }
  const hours = await readHours(tx)
  const proposed = at.getTime() + lookAgain_min(Math.max(0, ...into.map(w => w.min))) * MINUTE_MS
  const until_ms = command.until ? Date.parse(command.until) : Math.max(proposed, nextSpan(hours, proposed)[0])
  if (until_ms <= at.getTime() || until_ms > at.getTime() + LONGEST_MS)
    throw fail(422, 'invalid', 'The next look lies after this one, within 60 days.', { until: 'After this look.' })
  await hold(new Date(until_ms), into)
  const where = own === 'to' ? ` before: ${step.title}` : `: ${step.title}`
  const says = `Not dry yet${where}${seen}. Look again ${clockIn(hours.zone, now)(until_ms)}`
  await write(act, 'not-dry', says)
  return { ok: true, says }
}

/** Sections of a step whose product sets: each goes on and comes off by itself, by a touch. */
import type { Sections, Wait } from '#core/acts'
import { sectionsOf } from '#core/plan'
import { closingOf, type LaidSection } from '#core/timetable'
import { clockIn, readHours } from '../shop/rows'
import { type Act, MINUTE_MS, type Result, write } from './act'
import type { PieceFile } from '../piece/rows'
import type { PlannedStep, StoredPlan } from '../plan/rows'

const isPair = <W extends Wait>(w: W): w is W & { sections: Sections } => (w.sections?.count ?? 1) > 1
/** The step whose sections a step lays or takes off, and how many there are; null: it is done in one go. */
export function sectionsAt(
  step: PlannedStep,
  plan: StoredPlan,
  file: PieceFile,
): { on: PlannedStep; count: number; takes: boolean; closes_min: number; opens_min: number } | null {
  const pair = plan.waits.filter(w => isPair(w)).find(w => w.from === step.key || w.to === step.key)
  if (pair) {
    const { count, closes_min, opens_min } = pair.sections
    const on = plan.steps.find(st => st.key === pair.from)!
    return { on, count, takes: pair.to === step.key, closes_min, opens_min }
  }
  if (!['stain', 'gel'].includes(step.kind)) return null
  const faces = file.context.facts.faces.filter(f => step.faces.includes(f.id))
  const own = sectionsOf(step, faces, file.context)
  return own && { on: step, count: own.count, takes: false, closes_min: own.open_min, opens_min: own.open_min / 2 }
}

export interface SectionLine {
  /** this step takes them off */
  takes: boolean
  /** the same step wipes what it lays */
  wipes: boolean
  count: number
  laid: number
  off: number
  /** from when on, and until when, one may come off, minutes after it went on */
  opens_min: number
  closes_min: number
  /** the next that comes off, and when it must be off; null: none is wet */
  next: { no: number; opens_ms: number; closes_ms: number } | null
}
/** Where a step stands in its sections, for a bench; null: it has none. */
export function sectionLine(step: PlannedStep, plan: StoredPlan, file: PieceFile): SectionLine | null {
  const at = sectionsAt(step, plan, file)
  if (!at) return null
  const { on, count, takes } = at
  const wet = on.laid.find(s => s.off_ms === null)
  return {
    takes,
    wipes: on.key === step.key && !plan.waits.some(w => isPair(w) && w.from === step.key),
    count: Math.max(count, on.laid.length),
    laid: on.laid.length,
    off: on.laid.filter(s => s.off_ms !== null).length,
    opens_min: at.opens_min,
    closes_min: at.closes_min,
    next: wet
      ? { no: wet.no, opens_ms: wet.on_ms + at.opens_min * MINUTE_MS, closes_ms: wet.on_ms + at.closes_min * MINUTE_MS }
      : null,
  }
}

const layOne = ({ tx, at }: Act, step: PlannedStep, no: number) =>
  tx.run('INSERT IGNORE INTO step_section (step_id, no, on_at) VALUES (:id, :no, :at)', { id: step.id, no, at })
const raise = ({ tx, step }: Act) =>
  tx.run('UPDATE plan_step SET row_version = row_version + 1 WHERE id = :id', { id: step.id })

/** The first section goes on when its step starts. */
export async function layFirst(act: Act) {
  const at = sectionsAt(act.step, act.plan, act.file)
  if (at && !at.takes) await layOne(act, act.step, 1)
}
/** A step that is done has laid all: what nobody touched went on last, and its clock begins there. */
export async function layRest(act: Act) {
  const at = sectionsAt(act.step, act.plan, act.file)
  const { laid } = act.step
  if (at && !at.takes && laid.length > 0 && laid.length < at.count) await layOne(act, act.step, laid.length + 1)
}
/** What takes off is done: nothing is wet any more. */
export async function takeRest(act: Act) {
  const at = sectionsAt(act.step, act.plan, act.file)
  if (!at) return
  const wipes = at.on.key === act.step.key && sectionLine(act.step, act.plan, act.file)!.wipes
  if (at.takes || wipes)
    await act.tx.run('UPDATE step_section SET off_at = :at WHERE step_id = :id AND off_at IS NULL', {
      id: at.on.id,
      at: act.at,
    })
}

const lastOff = (laid: readonly LaidSection[]) =>
  laid.reduce<LaidSection | null>((last, s) => (s.off_ms !== null && s.off_ms >= (last?.off_ms ?? 0) ? s : last), null)

/** One section more on, the next one off, or the last touch taken back. */
export async function section(act: Act, what: 'on' | 'off' | 'back'): Promise<Result> {
  const { tx, step, at } = act
  const its = sectionsAt(step, act.plan, act.file)
  if (!its) throw fail(422, 'no-sections', 'This step is done in one go.')
  if (step.state !== 'running') throw fail(409, 'not-running', 'Start the step first.')
  const { laid } = its.on
  const told = async (no: number, says: string): Promise<Result> => {
    await raise(act)
    const line = `Section ${no} of ${Math.max(its.count, laid.length)} ${says}: ${step.title}`
    await write(act, 'section', line)
    return { ok: true, says: line }
  }
  if (what === 'on') {
    if (its.takes) throw fail(422, 'no-sections', 'Another step lays these sections.')
    if (laid.length >= its.count) throw fail(409, 'all-on', 'All sections are on. Touch "Done".')
    const hours = await readHours(tx)
    const [closes_ms, closing] = [at.getTime() + its.closes_min * MINUTE_MS, closingOf(hours, at.getTime())]
    if (closing === null || closes_ms > closing) {
      const clock = clockIn(hours.zone, at)
      const when = closing === null ? 'the shop is closed' : `the shop closes at ${clock(closing)}`
      throw fail(
        409,
        'ends-after-closing',
        `Section ${laid.length + 1} would have to be off by ${clock(closes_ms)}, and ${when}. Go on in the morning.`,
      )
    }
    await layOne(act, step, laid.length + 1)
    return told(laid.length + 1, 'on')
  }
  if (what === 'off') {
    const next = laid.find(s => s.off_ms === null)
    if (!next) throw fail(409, 'none-wet', 'No section is wet. Put the next one on.')
    await tx.run('UPDATE step_section SET off_at = :at WHERE step_id = :id AND no = :no', {
      id: its.on.id,
      no: next.no,
      at,
    })
    return told(next.no, 'off')
  }
  const off = lastOff(laid)
  const on = laid.at(-1)
  if (off && (its.takes || !on || off.off_ms! >= on.on_ms)) {
    await tx.run('UPDATE step_section SET off_at = NULL WHERE step_id = :id AND no = :no', {
      id: its.on.id,
      no: off.no,
    })
    return told(off.no, 'taken back, not off')
  }
  if (!on || on.no === 1 || its.takes) throw fail(409, 'nothing', 'There is nothing to take back here.')
  await tx.run('DELETE FROM step_section WHERE step_id = :id AND no = :no', { id: its.on.id, no: on.no })
  return told(on.no, 'taken back, not on')
}

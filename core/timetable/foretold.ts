import { type Air, STALE_AFTER_MIN } from '../air'
import type { Shelf } from '../materials'
import type { Verdict } from '../rules'
import type { Hours } from './hours'
import { type BenchStep, type BenchWait, type LaidSection, mayStart, type StartVerdict } from './mayStart'
import type { Spell } from './spells'
import { type ToldAct, withTold } from './told'

const MIN_MS = 60_000

interface ToldSections {
  takes: boolean
  laid: number
  off: number
  opens_min: number
  closes_min: number
  next: { no: number; opens_ms: number; closes_ms: number } | null
}
export interface ToldStep extends BenchStep {
  id: number
  spells: readonly Spell[]
  laid: readonly LaidSection[]
  sections: ToldSections | null
  start: StartVerdict
}

/** Sections that went on and came off by these acts. */
function laidWith(step: ToldStep, acts: readonly ToldAct[]): LaidSection[] {
  let laid = step.laid.map(s => ({ ...s }))
  for (const { kind, section, at_ms } of acts) {
    const wet = laid.find(s => s.off_ms === null)
    const begins = kind === 'start' && step.sections && !step.sections.takes
    if (begins || section === 'on') laid = [...laid, { no: laid.length + 1, on_ms: at_ms, off_ms: null }]
    if (section === 'off' && wet) wet.off_ms = at_ms
    if (kind === 'finish') laid.forEach(s => (s.off_ms ??= at_ms))
  }
  return laid
}
function sectionsWith(its: ToldSections | null, laid: readonly LaidSection[]): ToldSections | null {
  if (!its || its.takes) return its
  const wet = laid.find(s => s.off_ms === null)
  const after = (minutes: number) => wet!.on_ms + minutes * MIN_MS
  return {
    ...its,
    laid: laid.length,
    off: laid.filter(s => s.off_ms !== null).length,
    next: wet ? { no: wet.no, opens_ms: after(its.opens_min), closes_ms: after(its.closes_min) } : null,
  }
}

export interface Foretelling<S extends ToldStep> {
  steps: readonly S[]
  waits: readonly BenchWait[]
  verdicts: readonly (Verdict & { overruled: unknown })[]
  hours: Hours
  shelf: Shelf
  wetCoat: string | null
  /** the air, and when it was told */
  air: Air | null
  told_ms: number
  now_ms: number
  clock: (at_ms: number) => string
}

/**
 * A plan's steps as they stand with acts that only one device knows of, by step, and what may start now. Air that was
 * told too long ago is unknown air.
 */
export function foretold<S extends ToldStep>(
  asked: Foretelling<S>,
  acts: ReadonlyMap<number, readonly ToldAct[]>,
): S[] {
  const { told_ms, now_ms } = asked
  const steps = asked.steps.map(step => {
    const its = acts.get(step.id)
    if (!its) return step
    const laid = laidWith(step, its)
    const told = withTold(step, its)
    return { ...told, laid, sections: told.state === 'done' ? null : sectionsWith(step.sections, laid) }
  })
  const overruled = new Set(asked.verdicts.filter(v => v.overruled).map(v => `${v.rule}|${v.step}`))
  const air = now_ms - told_ms < STALE_AFTER_MIN * MIN_MS ? asked.air : null
  return steps.map(step => ({ ...step, start: mayStart({ ...asked, steps, step, overruled, air }) }))
}

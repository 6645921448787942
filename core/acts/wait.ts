/** Waits are edges. A minimum counts from the end of the earlier step, a maximum from its start. Minutes. */
import type { Air } from '../air'
import { dryingTime_min } from '../drying'
import type { Material } from '../materials'
import type { Sections } from './sections'

export type WaitKind = 'order' | 'answer' | 'dwell' | 'dry' | 'recoat' | 'harden' | 'cure'

export interface Wait {
  from: string
  to: string
  kind: WaitKind
  min: number
  likely: number
  safe: number
  max: number | null
  /** past the maximum of a hard wait the work is spoiled */
  hard: boolean
  why: string
  /** where it is worked in sections: what opens it goes on, and what closes it takes off, one after the other */
  sections?: Sections
  /** by label and air alone, minutes: what the shop's own dry times are learnt against */
  expected?: number
}
export type WaitDraft = Omit<Wait, 'from' | 'to'>

export const H = 60
export const D = 1440

export const ONE_AFTER_THE_OTHER: WaitDraft = {
  kind: 'order',
  min: 0,
  likely: 0,
  safe: 0,
  max: null,
  hard: false,
  why: 'one after the other',
}
export const fixed = (
  kind: WaitKind,
  min: number,
  likely: number,
  safe: number,
  why: string,
  max: number | null = null,
): WaitDraft => ({ kind, min, likely, safe, max, hard: max !== null, why })

/** Oil stain, conditioner or gel before the film over it: 24 h warm, 48 to 72 h cool or damp (common practice). */
export const COLOUR_DRY: WaitDraft = fixed(
  'dry',
  D,
  D,
  2 * D,
  'oil colour dries 24 h warm, 48 to 72 h cool or damp, before anything goes over it',
)

/** Drying by a label's figures in this air, minutes. */
export function drying(
  m: Material,
  label: readonly [number, number],
  kind: WaitKind,
  why: string,
  air: Air,
  max: number | null = null,
): WaitDraft {
  const { expected, likely, safe } = dryingTime_min({ label_min: label[1], base: m.base, air, dries: m.dries })
  return {
    expected,
    kind,
    min: label[0],
    likely: Math.max(label[0], likely),
    safe: Math.max(label[0], safe),
    max,
    hard: max !== null,
    why,
  }
}

/** A minimum put in by hand, minutes; it outranks a shorter one. */
export interface Least {
  from: string
  to: string
  min: number
}

/** Waits with the minima that were put in by hand; `keys` are the steps that there are. */
export function withLeast(waits: readonly Wait[], leasts: readonly Least[], keys: ReadonlySet<string>): Wait[] {
  const leastOf = (w: Wait) => leasts.find(l => l.from === w.from && l.to === w.to)?.min ?? 0
  const own = leasts.filter(
    l => keys.has(l.from) && keys.has(l.to) && !waits.some(w => w.from === l.from && w.to === l.to),
  )
  return [
    ...waits.map(w => ({
      ...w,
      min: Math.max(w.min, leastOf(w)),
      likely: Math.max(w.likely, leastOf(w)),
      safe: Math.max(w.safe, leastOf(w)),
    })),
    ...own.map((l): Wait => ({
      from: l.from,
      to: l.to,
      kind: 'dry',
      min: l.min,
      likely: l.min,
      safe: l.min,
      max: null,
      hard: false,
      why: 'put in to keep a rule',
    })),
  ]
}

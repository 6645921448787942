/** Waits are edges. A minimum counts from the end of the earlier step, a maximum from its start. Minutes. */
import type { Air } from '../air'
import { dryingTime_min, STANDARD_AIR } from '../drying'
import { materialOf, type Material } from '../materials'
import { type Facts, isFound } from '../piece'
import type { Step } from './step'

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
}
type Draft = Omit<Wait, 'from' | 'to'>

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

const H = 60
const D = 1440

const nothing: Draft = { kind: 'order', min: 0, likely: 0, safe: 0, max: null, hard: false, why: 'one after the other' }
const fixed = (
  kind: WaitKind,
  min: number,
  likely: number,
  safe: number,
  why: string,
  max: number | null = null,
): Draft => ({ kind, min, likely, safe, max, hard: max !== null, why })

/** Oil stain, conditioner or gel before the film over it: 24 h warm, 48 to 72 h cool or damp (common practice). */
const COLOUR_DRY: Draft = fixed(
  'dry',
  D,
  D,
  2 * D,
  'oil colour dries 24 h warm, 48 to 72 h cool or damp, before anything goes over it',
)

function drying(
  m: Material,
  label: readonly [number, number],
  kind: WaitKind,
  why: string,
  air: Air,
  max: number | null = null,
): Draft {
  const { likely, safe } = dryingTime_min({ label_min: label[1], base: m.base, air })
  return {
    kind,
    min: label[0],
    likely: Math.max(label[0], likely),
    safe: Math.max(label[0], safe),
    max,
    hard: max !== null,
    why,
  }
}

/** What must pass between two steps that follow each other on a face. */
export function waitAfter(step: Step, next: Step, facts: Facts, air: Air = STANDARD_AIR): Draft {
  const m = step.product ? materialOf(step.product) : null
  if (next.gate?.slug === 'moisture') {
    const days = Math.max(...facts.wet.filter(w => next.faces.includes(w.faceId)).map(w => w.likely_d), 0)
    return fixed('dry', 0, days * D, 1.5 * days * D, 'the wood dries toward equilibrium with the room')
  }
  switch (step.kind) {
    case 'approval':
      return fixed('answer', 0, 0, 0, "the client's word")
    case 'wash':
      return fixed('dry', 30, 30, 60, 'the washed surface dries')
    case 'solvent-wash':
      return fixed('dry', 30, 30, 60, 'the solvent leaves the surface')
    case 'joint':
      return fixed('harden', 4 * H, 12 * H, D, 'glue stands clamped before the joint is worked on')
    case 'mend':
      return fixed('harden', H, 4 * H, D, 'filler and glue harden before they are cut flush')
    case 'strip':
      return isFound(facts, 'several-layers', 'runs')
        ? fixed('dwell', 60, 120, 120, 'thick old film: it works 1 to 3 h, and only while wet', 3 * H)
        : fixed('dwell', 15, 20, 20, 'thin film, open: 15 to 30 min, then it starts to dry', 30)
    case 'wash-off':
      return fixed('dry', 2 * H, 4 * H, 12 * H, 'the washing solvent leaves pores and corners')
    case 'conditioner':
      return next.kind === 'stain' || next.kind === 'gel'
        ? fixed('dwell', 5, 10, 15, 'stain within 2 h of the conditioner, or it has sealed too far', 2 * H)
        : COLOUR_DRY
    case 'gel':
      return next.kind === 'gel'
        ? fixed('recoat', 8 * H, 12 * H, D, 'second gel coat after 8 to 10 h by some labels, 12 to 24 h by others')
        : COLOUR_DRY
    case 'stain':
      return next.kind === 'stain'
        ? fixed('recoat', 2 * H, 2 * H, 4 * H, 'second coat of penetrating stain after 2 h')
        : COLOUR_DRY
    case 'oil-on':
      return m!.slug === 'varnish-oil'
        ? fixed('dwell', 30, 40, 50, 'wipe all of it off 30 to 60 min after it went on', 60)
        : fixed('dwell', 5, 15, 30, `all excess off within ${m!.wipe_min} min`, m!.wipe_min)
    case 'oil-off': {
      // plans stored before oils were told apart carry no product here
      const oil = m ?? materialOf('varnish-oil')
      if (oil.slug === 'boiled-linseed' && next.kind === 'coat')
        return fixed('dry', 14 * D, 14 * D, 21 * D, 'boiled linseed about 14 days before shellac, or bubbles')
      return next.kind === 'oil-on'
        ? drying(oil, [D, D], 'recoat', 'label 24 h; in a cool shop up to 4 days. The rag tells', air)
        : drying(oil, [D, oil.handle_min], 'dry', 'dry enough to handle when the rag picks up nothing', air)
    }
    case 'bleach':
      return m!.slug === 'two-part-bleach'
        ? fixed('dwell', 8 * H, 12 * H, 16 * H, 'it works overnight')
        : fixed('dwell', 30, H, 2 * H, 'it works while wet')
    case 'rinse':
      return fixed(
        'dry',
        D,
        1.5 * D,
        2 * D,
        'wood dries 24 to 48 h after the rinse, near equilibrium before anything goes on',
      )
    case 'raise-grain':
      return fixed('dry', H, 2 * H, 4 * H, 'the wetted wood dries')
    case 'fill':
      return m!.base === 'oil'
        ? fixed('dwell', 10, 15, 20, 'wipe when it hazes; left longer it sets', 30)
        : fixed('dwell', 0, 2, 5, 'scraped off at once', 10)
    case 'fill-off':
      return m!.base === 'oil'
        ? fixed('dry', D, D, 2 * D, 'paste filler 24 h, thick fills longer')
        : fixed('dry', 2 * H, 3 * H, 4 * H, 'waterborne filler dries')
    case 'dye':
      if (m!.base === 'alcohol') return fixed('dry', 10, 30, H, 'alcohol dye dries fast')
      if (next.kind === 'dye') return fixed('dry', H, 2 * H, 4 * H, 'judge each pass dry')
      return fixed('dry', 12 * H, 12 * H, D, 'water colour dries overnight before a film')
    case 'paint-wash':
      return fixed('dry', 12 * H, 12 * H, D, 'the wash dries before it is sealed')
    case 'toner':
      return fixed('recoat', 10, 20, 30, 'flash time between mists')
    case 'glaze':
      return fixed('dry', 12 * H, D, 2 * D, 'glaze dries before the clear coat')
    case 'amalgamate':
      return fixed('harden', 12 * H, D, 3 * D, 'the film hardens before it is judged')
    case 'spot-colour':
      return fixed('dry', 30, H, 2 * H, 'the touch-up dries')
    case 'spot-coat':
      return next.kind === 'rub-out'
        ? fixed('cure', 7 * D, 7 * D, 14 * D, 'local coats cure a week before they are levelled')
        : fixed('recoat', H, H, 2 * H, 'local coats an hour apart')
    case 'coat': {
      if (next.kind === 'rub-out')
        return fixed(
          'cure',
          m!.cure_d[0] * D,
          m!.cure_d[0] * D,
          m!.cure_d[1] * D,
          `${m!.name} cures ${m!.cure_d[0]} to ${m!.cure_d[1]} days before it is rubbed`,
        )
      if (next.kind === 'gate' && next.gate?.slug !== 'adhesion')
        return fixed('harden', 12 * H, D, 3 * D, 'the sealer hardens overnight to three days before it is judged')
      if (next.kind === 'finish-up')
        return drying(
          m!,
          [m!.handle_min, m!.handle_min],
          'dry',
          `${m!.name} may be handled after ${m!.handle_min / H} h`,
          air,
        )
      const max = next.kind === 'coat' && next.product === step.product && !m!.meltsIn ? m!.recoatMax_min : null
      return drying(
        m!,
        m!.recoat_min,
        'recoat',
        `${m!.name}: next coat from ${m!.recoat_min[0]} min by the usual label`,
        air,
        max,
      )
    }
    default:
      return nothing
  }
}

const colours = (s: Step) => s.kind === 'stain' || s.kind === 'gel'
const covers = (s: Step) => s.kind === 'coat' || s.kind === 'oil-on'

/**
 * All waits of a list of steps: between neighbours on a face, and where another step lies between them, from the last
 * colour to the first cover and from the last coat to putting together.
 */
export function waitsBetween(steps: readonly Step[], facts: Facts, air: Air = STANDARD_AIR): Wait[] {
  const waits = new Map<string, Wait>()
  const add = (from: Step, to: Step) => {
    const id = `${from.key}>${to.key}`
    if (!waits.has(id)) waits.set(id, { from: from.key, to: to.key, ...waitAfter(from, to, facts, air) })
  }
  const last = new Map<number, Step>()
  const lastConditioner = new Map<number, Step>()
  const openColour = new Map<number, Step>()
  const lastCoat = new Map<number, Step>()
  for (const step of steps) {
    for (const face of step.faces) {
      const before = last.get(face)
      if (before) add(before, step)
      const conditioner = lastConditioner.get(face)
      if (colours(step) && conditioner && conditioner !== before) add(conditioner, step)
      const colour = openColour.get(face)
      if (covers(step) && colour && colour !== before) add(colour, step)
      const coated = lastCoat.get(face)
      if (step.kind === 'finish-up' && coated && coated !== before) add(coated, step)
      if (covers(step)) lastCoat.set(face, step)
      if (step.kind === 'conditioner') lastConditioner.set(face, step)
      if (colours(step)) {
        openColour.set(face, step)
        lastConditioner.delete(face)
      }
      if (covers(step)) openColour.delete(face)
      last.set(face, step)
    }
  }
  return [...waits.values()]
}

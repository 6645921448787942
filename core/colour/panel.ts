/**
 * The step panel: the state after each step that changes the look, predicted, to hold the real face against. And what
 * a colour record must say.
 */
import { BLEACH_LEAVES, clearCoat, isClearCoat } from './coats'
import type { Gloss } from './kubelka'
import {
  type Colourant,
  colouredInner,
  readOf,
  type Share,
  strengthsOf,
  type Surface,
  type Wipe,
  withAbsorption,
} from './predict'
import type { Spectrum } from './spectrum'

export const APPLICATORS = ['cloth', 'brush', 'foam', 'gun', 'other'] as const
export type Applicator = (typeof APPLICATORS)[number]
/** How a coloured band was made: another value anywhere is another colour. */
export interface ColourRecord {
  grit: number | null
  scale: 'P' | 'CAMI'
  conditioner: string
  applicator: Applicator
  dwell_min: number | null
  wipe: Wipe
  temperature_C: number | null
}
/** Temperatures count as the same within one such class. Shop default, unsourced. */
const TEMPERATURE_CLASS_K = 5

/**
 * Bands of one key may be taken together; bands of different keys never (common practice: another grit or wipe is
 * another colour).
 */
export const recordKey = (r: ColourRecord): string =>
  [
    r.grit === null ? '?' : `${r.scale}${r.grit}`,
    r.conditioner,
    r.applicator,
    r.dwell_min ?? '?',
    r.wipe,
    r.temperature_C === null ? '?' : Math.round(r.temperature_C / TEMPERATURE_CLASS_K) * TEMPERATURE_CLASS_K,
  ].join('/')

/** Things sorted by their record; none is left out, none is mixed. */
export function byRecord<T extends ColourRecord>(bands: readonly T[]): T[][] {
  const groups = new Map<string, T[]>()
  for (const b of bands) groups.set(recordKey(b), [...(groups.get(recordKey(b)) ?? []), b])
  return [...groups.values()].sort((a, b) => b.length - a.length)
}

/** How a step changes the look: a colour, a clear layer, paler wood, or in a way that is not modelled. */
export type Look = 'colour' | 'finish' | 'wax' | 'bleach' | 'other'
export interface LookStep {
  key: string
  look: Look | null
  title: string
  product: string | null
  coat: number | null
}
/** A recipe as it goes on: its colourants, all of one group, with the spectra for this wood. */
export interface PlannedColour {
  group: string
  set: readonly Colourant[]
  shares: readonly Share[]
  wipe: Wipe
}
export interface PanelState {
  key: string
  title: string
  /** what a meter should read here; null: cannot be foretold, for `why` */
  predicted: Spectrum | null
  why: 'no-recipe' | 'not-modelled' | null
  /** the clear coat that lies on it: a sealer, or the finish once it is on; null: bare */
  coat: string | null
  /** the finish itself lies on it, not a sealer alone, so that colour can be judged */
  underFinish: boolean
  /** coats of colour so far */
  coats: number
  surface: Surface
}

/** Wax goes over a finish and is the finish only where it lies alone. */
const CLEAR: readonly (Look | null)[] = ['finish', 'wax']

/**
 * What the panel should show after each step, beginning with the bare sanded wood, its clear coats new or after
 * `years`. Steps that leave the look alone have no band.
 */
export function panelStates(
  steps: readonly LookStep[],
  wood: Spectrum,
  colours: readonly PlannedColour[],
  gloss: Gloss,
  years = 0,
): PanelState[] {
  let inner: Spectrum | null = wood
  let why: PanelState['why'] = null
  let clear: Spectrum | null = null
  let coats = 0
  let coat: string | null = null
  const finish = (steps.findLast(s => s.look === 'finish') ?? steps.findLast(s => s.look === 'wax'))?.product ?? null
  const coatsOf = (product: string | null) => steps.filter(s => CLEAR.includes(s.look) && s.product === product).length
  const state = (key: string, title: string): PanelState => {
    const surface: Surface = { clear, gloss: clear ? gloss : 'excluded' }
    return {
      key,
      title,
      predicted: inner && readOf(inner, surface),
      why,
      coat,
      underFinish: coat !== null && coat === finish,
      coats,
      surface,
    }
  }
  const states = [state('bare', '')]
  const coloured = new Map<PlannedColour, { base: Spectrum; coats: number }>()
  for (const s of steps) {
    if (s.look === null) continue
    if (s.look === 'bleach') inner = inner && withAbsorption(inner, BLEACH_LEAVES)
    else if (CLEAR.includes(s.look)) {
      const film =
        s.product && isClearCoat(s.product) ? clearCoat(s.product, years).map(t => t ** (1 / coatsOf(s.product))) : null
      if (coat !== finish) coat = s.product
      clear = (clear ?? wood.map(() => 1)).map((t, i) => t * (film?.[i] ?? 1))
    } else {
      if (s.look === 'colour') coats += 1
      const colour = colours.find(c => c.group === s.product)
      if (!colour || !inner) {
        why ??= colour ? 'not-modelled' : 'no-recipe'
        inner = null
      } else {
        const so = coloured.get(colour) ?? { base: inner, coats: 0 }
        so.coats += 1
        coloured.set(colour, so)
        inner = colouredInner(so.base, colour.set, strengthsOf(colour.set, colour.shares, so.coats, colour.wipe))
      }
    }
    states.push(state(s.key, s.title))
  }
  return states
}

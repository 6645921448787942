/**
 * A step of a plan, and the words of which its meaning is made. Titles and cautions are said from these, never stored.
 */
import type { Grit } from '../abrasives'
import type { FindingKind, RouteSlug } from '../piece'
import type { Measured } from './measures'

export const STEP_KINDS = [
  ...(['approval', 'take-apart', 'wash', 'solvent-wash', 'cover', 'roughen', 'strip', 'scrape', 'wash-off'] as const),
  ...(['scuff', 'level', 'sand', 'pad', 'clean-off', 'conditioner', 'stain', 'gel', 'coat', 'sand-coat'] as const),
  ...(['oil-on', 'oil-off', 'wax', 'rub-out', 'joint', 'mend', 'mask', 'unmask', 'amalgamate'] as const),
  ...(['spot-colour', 'spot-coat', 'french-polish', 'sand-off', 'bleach', 'rinse', 'raise-grain'] as const),
  ...(['fill', 'fill-off', 'sand-back', 'putty', 'dye', 'toner', 'glaze', 'paint-wash', 'refer', 'gate'] as const),
  ...(['wet-out', 'test-piece', 'derust', 'brighten', 'take-out', 'put-back', 'damp-clean'] as const),
  ...(['buff', 'turn', 'pull', 'press', 'steam', 'pare', 'finish-up', 'other'] as const),
] as const
export type StepKind = (typeof STEP_KINDS)[number]
export const METHODS = [
  ...(['hand', 'random-orbit', 'belt', 'finishing-sander', 'steel-wool', 'wet', 'brush', 'spray', 'rag'] as const),
  'none',
] as const
export type Method = (typeof METHODS)[number]

export const GATES = [
  ...([
    'wetting-test',
    'sealer-judged',
    'film-flowed',
    'moisture',
    'barrier-clear',
    'adhesion',
    'polished',
    'stain-holds',
  ] as const),
] as const
export type GateSlug = (typeof GATES)[number]
/** What may show at a step's end: scratches that the buffer brought out, few or all over; orange after bleach. */
export const SEEN = ['one-or-two', 'all-over', 'orange'] as const
export type Seen = (typeof SEEN)[number]
export interface Gate {
  slug: GateSlug
  look: string
  fails: string
  fallback: RouteSlug | null
  chance: number
}

/** What a step carries beside product, grits, method and coat. Each act names the ones that it reads. */
export interface Fields {
  /** solvent wash: what it takes away */
  against?: 'wax' | 'contamination' | 'tape-residue' | 'grease'
  /** scuff: the layer under the paper, where it is not the old film */
  on?: 'sealer'
  /** coat, oil: what the layer is for, where it is not the finish itself */
  as?: LayerUse
  /** how many coats there are of this one */
  of?: number
  /** how dust is taken off */
  dustBy?: 'tack-cloth' | 'damp-cloth' | 'air-only' | 'after-wet'
  /** wiping filler, by the grain */
  wipe?: 'across' | 'with'
  /** sanding: what it follows, where it is not a ladder of its own */
  after?: 'bleach' | 'water'
  /** only on the marks of its faces, and a little around them */
  where?: 'spots'
  /** test piece: not on scrap, but on a hidden place of the piece */
  tried?: 'in-place'
  /** which marks: kinds, and what was counted and measured of them */
  spots?: readonly Spot[]
  /** rubbing out: to this sheen */
  sheen?: 'matt' | 'satin' | 'semi-gloss' | 'gloss'
  /** what a repair is filled with */
  filler?: 'tinted' | 'plain' | 'stretching' | 'wood-strip'
  /** what a repair is glued with */
  glue?: 'wood-glue' | 'hide-glue' | 'epoxy'
  /** what is mended, and at how many places */
  repairs?: readonly { kind: string; places: number }[]
  /** toner: bands and edges, or the overall mist */
  shade?: 'dark' | 'light'
  /** a little dye in the coat, per cent */
  tint_pct?: number
  /** reducer in it, per cent of its volume */
  thinned_pct?: number
  /** one more round: thinner, or with more left on */
  strength?: 'thinner' | 'stronger'
  /** laid as a band along the edges only, this wide */
  band_mm?: number
  /** the shop's recipe that it is coloured by */
  recipe?: string
  /** the can is shaken, not stirred */
  shaken?: boolean
  /** moisture gate: most per cent */
  most_pct?: number
}
/** Marks of one kind that a step works on. */
export interface Spot {
  kind: FindingKind
  places: number
  /** with what lies around each */
  cm2: number
}
export const LAYER_USES = [
  ...(['barrier', 'against-contamination', 'under-glaze', 'over-glaze', 'under-toner', 'before-filler'] as const),
  ...(['over-filler', 'under-lacquer', 'sealer', 'under-shellac', 'fills-pores'] as const),
] as const
export type LayerUse = (typeof LAYER_USES)[number]

/** What of a step may be typed by hand; what was not typed follows from the act. */
export const TYPED = ['title', 'attended_min', 'amount_ml'] as const
export type Typed = (typeof TYPED)[number]

export interface Step {
  /** stays the same across versions of a plan */
  key: string
  kind: StepKind
  /** said from the fields, unless it was typed */
  title: string
  faces: number[]
  /** its class; null: none, or none chosen yet */
  product: string | null
  /** the version of the label of the shop's own product; null: any of its class */
  label: number | null
  /** in order */
  grits: Grit[]
  method: Method
  coat: number | null
  passes: number
  fields: Fields
  attended_min: number
  amount_ml: number | null
  why: string
  gate: Gate | null
  /** what was typed by hand */
  typed: readonly Typed[]
  /** what was measured at its end */
  measured?: Measured
}

/** A step with everything left out that it may do without. */
export const stepOf = (given: Pick<Step, 'key' | 'kind' | 'faces'> & Partial<Step>): Step => ({
  title: '',
  product: null,
  label: null,
  grits: [],
  method: 'none',
  coat: null,
  passes: 1,
  fields: {},
  attended_min: 0,
  amount_ml: null,
  why: '',
  gate: null,
  typed: [],
  ...given,
})

/** Values of the fields that somebody may choose. */
export const FIELD_VALUES = {
  against: ['wax', 'contamination', 'tape-residue', 'grease'],
  on: ['sealer'],
  as: LAYER_USES,
  dustBy: ['tack-cloth', 'damp-cloth', 'air-only', 'after-wet'],
  wipe: ['across', 'with'],
  after: ['bleach', 'water'],
  where: ['spots'],
  tried: ['in-place'],
  filler: ['tinted', 'plain', 'stretching', 'wood-strip'],
  glue: ['wood-glue', 'hide-glue', 'epoxy'],
  shade: ['dark', 'light'],
  strength: ['thinner', 'stronger'],
} as const satisfies { [F in keyof Fields]?: readonly Fields[F][] }
export type ChosenField = keyof typeof FIELD_VALUES

/** Fields that somebody may choose; the others follow from the plan. */
export const chosenOf = (fields: Fields): Fields =>
  Object.fromEntries(Object.entries(fields).filter(([field]) => field in FIELD_VALUES || field === 'shaken'))
/** Fields with a new choice: what is not chosen any more is gone, what nobody chooses stays. */
export const rechosen = (fields: Fields, chosen: Fields): Fields => {
  const own = chosenOf(fields)
  const kept = Object.fromEntries(Object.entries(fields).filter(([field]) => !(field in own)))
  return { ...kept, ...chosenOf(chosen) }
}

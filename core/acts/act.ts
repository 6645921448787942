/** What an act, a kind of step, says of itself. Every question that anybody asks of a kind of step is answered here. */
import type { Grit } from '../abrasives'
import type { Context } from '../context'
import type { Base, Material, Role } from '../materials'
import type { Face } from '../piece'
import type { Caution } from '../safety'
import type { LadderPlace } from './sandRows'
import type { Fields, LayerUse, Method, StepKind, Step } from './step'
import type { Surface } from './surface'
import type { WaitDraft } from './wait'

export type StepAtWork = Pick<Step, 'kind' | 'grits' | 'method' | 'product' | 'label' | 'coat' | 'passes' | 'fields'>

/** Attended minutes: a set-up and a pace for each flat m² and pass, or worked out. */
export type Pace =
  | { setup_min: number; min_m2: number }
  | ((step: StepAtWork, faces: readonly Face[], k: Context, place: LadderPlace) => number)

export interface Makes {
  /** abrasion: dust, unless it is done wet */
  dust: boolean
  /** vapour of what is in the product */
  vapour: boolean
  /** machines want ear protection */
  noise: boolean
  /** water on the wood */
  water: boolean
  /** takes old finish or wood away, and with it a maker's mark, lead, or poison */
  wears: boolean
}
export const NOTHING_MADE: Makes = { dust: false, vapour: false, noise: false, water: false, wears: false }

/**
 * What it does to the look and the layers:
 * covers: goes onto or into the surface and wants it ready · films: leaves a film · finishes: may be the finish itself
 * · colours: changes the colour · looks: changes how it looks otherwise · abrades: cuts · mends: repairs wood ·
 * cleans: wipes something off · soaks: colour that goes into the wood alone · floods: much water · smooths: cuts a
 * film of ours · lingers: wet for long, dust falls into it · ends: comes when all faces are through · words: is
 * somebody's word or work, not a pair of hands in this shop
 */
export type Does =
  | 'covers'
  | 'films'
  | 'finishes'
  | 'colours'
  | 'looks'
  | 'abrades'
  | 'mends'
  | 'cleans'
  | 'soaks'
  | 'floods'
  | 'smooths'
  | 'lingers'
  | 'ends'
  | 'words'

export interface Unfit {
  rule:
    | 'bleach-needs-bare-wood'
    | 'stain-needs-bare-wood'
    | 'gel-over-film-needs-scuff'
    | 'oil-on-sealed-surface'
    | 'filler-on-film'
  says: string
}

/** What is to be done when a window that this act opened has passed. */
export type Late = 'scuff' | 'condition-again' | 'wet-again' | 'soften' | 'nothing'

export interface Rounds {
  /** acts of one round beside this one, after it or (where it says so) before it */
  with: readonly { kind: StepKind; stands: 'before' | 'after' }[]
  /** what passes */
  passes: string
  /** rounds at worst; null: the range of coats of the product */
  worst: number | null
}

/** One round of a layer: its step, which it is of how many, and the surface that it is laid on. */
export interface Round {
  step: Step
  no: number
  of: number
  s: Surface
  k: Context
}
/** A step that comes with a round of a layer. `grits` "stop": those on which the bare wood was left. */
export interface Beside {
  kind: StepKind
  why: string
  takesProduct?: boolean
  grits?: readonly Grit[] | 'stop'
  method?: Method
  fields?: Fields
}
/** What an act brings where it is chosen as a layer. */
export interface LayerOf {
  /** where it usually stands among the work on other faces, lower is earlier, and how far its rounds lie apart */
  place: (use: LayerUse | null) => number
  apart: number
  /** rounds where nobody says how many */
  rounds: (m: Material | null) => number
  /** may it be what the work ends with? */
  finish: boolean
  /** where it is not the act's first */
  method?: (m: Material) => Method
  /** passes of one round */
  passes?: (m: Material) => number
  /** sanded between its rounds, by the grit of its product */
  sanded?: boolean
  /** wants the film below it flattened */
  flattens?: boolean
  /** leaves dust that is taken off before the next layer */
  dusty?: boolean
  why: (r: Round) => string
  after: (r: Round) => readonly Beside[]
  /** in everyday words, for a client; null: of no interest to one */
  everyday: string | null
}
export const ONE_ROUND = () => 1
export const AS_PRODUCT = (m: Material | null) => m?.coats[0] ?? 1
/** A layer of one round with nothing beside it. */
export const plainLayer = (place: number, why: string, more: Partial<LayerOf> = {}): LayerOf => ({
  place: () => place,
  apart: 1,
  rounds: ONE_ROUND,
  finish: false,
  why: () => why,
  after: () => [],
  everyday: null,
  ...more,
})

export interface Act {
  /** what it is called in a list of acts */
  called: string
  /** role of the product that it works with, and whether it cannot be done without; null: no product */
  needs: { roles: readonly Role[]; always: boolean; base?: Base } | null
  /** does it use the product up? Wiping oil off names the oil and takes none. */
  usesUp: boolean
  pace: Pace
  /** the usual one first */
  methods: readonly [Method, ...Method[]]
  makes: Makes
  does: readonly Does[]
  /** why it cannot be done on this surface: the rule that it breaks, and how, in words; null: it can */
  ground: (s: Surface, step: Step) => Unfit | null
  leaves: (s: Surface, step: Step, k: Context) => Surface
  /** what must pass before `next` may start on the same face; null: nothing */
  then: (step: Step, next: Step, k: Context) => WaitDraft | null
  /** a window of its own while it is worked: minutes that it stays open, minutes for each m²; null: nothing dries */
  open: (step: Step, k: Context) => { open_min: number; min_m2: number; says: string } | null
  late: Late
  rounds: Rounds | null
  /** what it asks at "done" */
  asks: readonly ('used' | 'gate' | 'mixed')[]
  /** what it brings where it is chosen as a layer of a surface; null: no layer */
  layer: LayerOf | null
  /** fields that it reads */
  fields: readonly (keyof Fields | 'grits')[]
  cautions: (step: Step, k: Context) => readonly Caution[]
  /** does the order of faces matter? Hidden faces first, what shows last. */
  inOrder: boolean
  /** may be added to a plan by hand */
  byHand: boolean
  notes: (step: Step) => readonly string[]
  says: (step: Step, k: Pick<Context, 'shelf'>) => string
}

export const perM2 = (min_m2: number, setup_min = SETUP_MIN): Pace => ({ min_m2, setup_min })
export const minutes = (min: number): Pace => ({ min_m2: 0, setup_min: min })
/** Set-up and clearing of a step (shop default, unsourced). */
export const SETUP_MIN = 8

export const ANY_GROUND = () => null
export const AS_IT_WAS = (s: Surface) => s
export const NO_WAIT = () => null
export const NOT_DRYING = () => null
export const NO_CAUTION = () => [] as const
export const NO_NOTES = () => [] as const
/** An act that asks nothing, waits for nothing and leaves all as it was: a family says what is otherwise. */
export const PLAIN = {
  needs: null,
  usesUp: false,
  methods: ['hand'],
  makes: NOTHING_MADE,
  does: [],
  ground: ANY_GROUND,
  leaves: AS_IT_WAS,
  then: NO_WAIT,
  open: NOT_DRYING,
  late: 'nothing',
  rounds: null,
  asks: [],
  layer: null,
  fields: [],
  cautions: NO_CAUTION,
  inOrder: false,
  byHand: true,
  notes: NO_NOTES,
} as const
export const always =
  (...notes: string[]) =>
  () =>
    notes
/** A machine of this kind is loud. */
export const LOUD: readonly Method[] = ['random-orbit', 'belt', 'finishing-sander']

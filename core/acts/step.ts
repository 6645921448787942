/** The kinds of step, their words and what an hour of them is made of. */
import type { RouteSlug } from '../build'
import type { Caution } from '../safety'

export const STEP_KINDS = [
  'approval',
  'take-apart',
  'wash',
  'solvent-wash',
  'cover',
  'roughen',
  'strip',
  'scrape',
  'wash-off',
  'scuff',
  'level',
  'sand',
  'pad',
  'clean-off',
  'conditioner',
  'stain',
  'gel',
  'coat',
  'sand-coat',
  'oil-on',
  'oil-off',
  'wax',
  'rub-out',
  'joint',
  'mend',
  'mask',
  'unmask',
  'amalgamate',
  'spot-colour',
  'spot-coat',
  'sand-off',
  'bleach',
  'rinse',
  'raise-grain',
  'fill',
  'fill-off',
  'sand-back',
  'dye',
  'toner',
  'glaze',
  'paint-wash',
  'refer',
  'gate',
  'finish-up',
  'other',
] as const
export type StepKind = (typeof STEP_KINDS)[number]
export const METHODS = [
  'hand',
  'random-orbit',
  'belt',
  'finishing-sander',
  'steel-wool',
  'wet',
  'brush',
  'spray',
  'rag',
  'none',
] as const
export type Method = (typeof METHODS)[number]

export interface Gate {
  slug: string
  look: string
  fails: string
  fallback: RouteSlug | null
  chance: number
}

export interface Step {
  /** stays the same across versions of a plan */
  key: string
  kind: StepKind
  title: string
  faces: number[]
  product: string | null
  /** P scale, in order */
  grits: number[]
  method: Method
  coat: number | null
  passes: number
  attended_min: number
  amount_ml: number | null
  cautions: Caution[]
  why: string
  gate: Gate | null
  /** changed or added by hand */
  byHand: boolean
}

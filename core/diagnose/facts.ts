/** What is known of the coat or step at which something shows, before anybody is asked. */
import { isCoarser, ladderGaps, P } from '../abrasives'
import { does, type Step } from '../acts'
import type { Material } from '../materials'

/** Each with the words in which it is told. */
export const FACTS = {
  'damp': 'the air was damp',
  'dry-air': 'the air was dry',
  'hot': 'it was hot',
  'cold': 'it was cold',
  'sprayed': 'it was sprayed',
  'brushed': 'it was brushed',
  'wiped': 'it was wiped on',
  'lacquer': 'it is lacquer',
  'shellac': 'it is shellac',
  'waterborne': 'it is waterborne',
  'oil': 'it is an oil or oil varnish',
  'two-part': 'it is mixed of two parts',
  'flatted': 'it is not gloss',
  'gloss': 'it is gloss',
  'thick': 'more went on than was planned',
  'cut-short': 'a wait was cut short',
  'too-late': 'its window had passed',
  'no-scuff': 'nothing was scuffed before it',
  'contaminated': 'silicone or wax was found on this piece',
  'old-can': 'the can is more than a year old',
  'filled': 'pores were filled',
  'filled-once': 'they were filled once',
  'filled-twice': 'they were filled twice',
  'rubbed-out': 'it was rubbed out',
  'not-rubbed': 'it was not rubbed out',
  'over-another': 'what lies under it is of another kind',
  'over-the-same': 'what lies under it is of the same kind',
  'old-pot': 'the pot was past its time',
  'other-hands': 'somebody else mixed it',
  'weighed-right': 'its parts were weighed as written',
  'weighed-wrong': 'its parts were weighed otherwise than written',
  'sample-pot': 'it came from the pot of the sample',
  'another-pot': 'it came from another pot than the sample',
  'open-pores': 'the wood has open pores',
  'drinks-unevenly': 'the wood drinks unevenly',
  'oily-wood': 'the wood is oily',
  'tannin': 'the wood is rich in tannin',
  'coarse': 'the last grit was coarse',
  'skipped': 'a grit was skipped',
  'machine-last': 'the last grit was not by hand',
  'old-layers': 'it lies over old layers',
  'wool': 'steel wool was used',
  'taped': 'something was taped',
  'upright': 'the face stands upright',
  'large': 'the face is large',
  'wet-wood': 'the wood was damp',
} as const
export type Fact = keyof typeof FACTS
export const FACT_SLUGS = Object.keys(FACTS) as Fact[]

/** By how much a fact that speaks for a cause multiplies its odds; against it, divides. Shop default, unsourced. */
export const FACT_FACTOR = 3

/** The pot that it came from. */
export interface KnownPot {
  pastLife: boolean
  byOther: boolean
  /** each part within the shop's tolerance of what was written; null: not weighed */
  asWritten: boolean | null
  /** is it the pot of the sample that was agreed? null: not known */
  ofSample: boolean | null
}
export interface Known {
  step: Pick<Step, 'kind' | 'method' | 'product' | 'coat' | 'amount_ml' | 'fields'>
  /** of the film or oil that lies under it; null: none that this plan laid */
  under: Material['base'] | null
  pot: KnownPot | null
  /** were its faces rubbed out? null: they carry no finish of this plan */
  rubbed: boolean | null
  /** the same faces' steps that are done, in order, without this one */
  before: readonly (Pick<Step, 'kind' | 'method' | 'grits' | 'fields'> & { product: string | null })[]
  material: Pick<Material, 'role' | 'base' | 'potLife_min' | 'meltsIn'> | null
  air: { temperature_C: number; rh: number } | null
  /** what was used, ml; null: not written down */
  used_ml: number | null
  /** days since the can came in; null: not known */
  can_d: number | null
  waitCutShort: boolean
  windowMissed: boolean
  contaminated: boolean
  pores: 'open' | 'closed' | null
  drinksUnevenly: boolean
  oily: boolean
  tannin: boolean
  oldLayers: boolean
  upright: boolean
  area_m2: number
  wetWood: boolean
  /** of what it lays; null: it lays no finish */
  gloss: boolean | null
}
/** Limits beyond which the air tells something. Common practice. */
const AIR = { damp: 0.65, dry: 0.35, hot_C: 26, cold_C: 15 } as const
const [LARGE_M2, OLD_CAN_D, THICK] = [1, 365, 1.3]
const COARSE = P(150)

const airFacts = ({ air }: Known): (Fact | false)[] =>
  air
    ? [
        air.rh > AIR.damp && 'damp',
        air.rh < AIR.dry && 'dry-air',
        air.temperature_C > AIR.hot_C && 'hot',
        air.temperature_C < AIR.cold_C && 'cold',
      ]
    : []
const productFacts = ({ material, step }: Known): (Fact | false | undefined)[] => [
  step.method === 'spray' && 'sprayed',
  step.method === 'brush' && 'brushed',
  step.method === 'rag' && 'wiped',
  material?.base === 'lacquer' && 'lacquer',
  material?.base === 'alcohol' && material.role === 'film' && 'shellac',
  material?.base === 'water' && 'waterborne',
  (material?.base === 'oil' || material?.role === 'oil') && 'oil',
  Boolean(material?.potLife_min) && 'two-part',
]
const potFacts = ({ pot }: Known): (Fact | false | undefined)[] => [
  pot?.pastLife && 'old-pot',
  pot?.byOther && 'other-hands',
  pot?.asWritten === true && 'weighed-right',
  pot?.asWritten === false && 'weighed-wrong',
  pot?.ofSample === true && 'sample-pot',
  pot?.ofSample === false && 'another-pot',
]
/** What answers a question by itself is told either way. */
function doneFacts({ before, under, material, rubbed }: Known): (Fact | false)[] {
  const fills = before.filter(s => s.kind === 'fill').length
  const known = under !== null && material !== null
  return [
    fills === 1 && 'filled-once',
    fills > 1 && 'filled-twice',
    rubbed === true && 'rubbed-out',
    rubbed === false && 'not-rubbed',
    known && under === material.base && 'over-the-same',
    known && under !== material.base && 'over-another',
  ]
}
function pastFacts({ before, material }: Known): (Fact | false)[] {
  const cut = before.findLast(s => s.kind === 'sand')
  const last = cut?.grits.at(-1)
  return [
    // what melts in wants no scuff
    !material?.meltsIn && before.some(s => does(s, 'films')) && !before.some(s => does(s, 'smooths')) && 'no-scuff',
    before.some(s => s.kind === 'fill') && 'filled',
    last !== undefined && isCoarser(last, COARSE) && 'coarse',
    cut !== undefined && ladderGaps(cut.grits).length > 0 && 'skipped',
    cut !== undefined && cut.method !== 'hand' && 'machine-last',
    before.some(s => s.method === 'steel-wool') && 'wool',
    before.some(s => s.kind === 'mask') && 'taped',
  ]
}
/** What these circumstances tell. */
export function factsOf(k: Known): Fact[] {
  const thick = k.used_ml !== null && k.step.amount_ml !== null && k.used_ml > THICK * k.step.amount_ml
  const all = [
    ...airFacts(k),
    ...productFacts(k),
    ...pastFacts(k),
    ...doneFacts(k),
    ...potFacts(k),
    thick && 'thick',
    k.gloss === false && 'flatted',
    k.gloss === true && 'gloss',
    k.waitCutShort && 'cut-short',
    k.windowMissed && 'too-late',
    k.contaminated && 'contaminated',
    k.can_d !== null && k.can_d > OLD_CAN_D && 'old-can',
    k.pores === 'open' && 'open-pores',
    k.drinksUnevenly && 'drinks-unevenly',
    k.oily && 'oily-wood',
    k.tannin && 'tannin',
    k.oldLayers && 'old-layers',
    k.upright && 'upright',
    k.area_m2 > LARGE_M2 && 'large',
    k.wetWood && 'wet-wood',
  ]
  return FACT_SLUGS.filter(f => (all as readonly unknown[]).includes(f))
}

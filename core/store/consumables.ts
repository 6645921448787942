/** What is used up beside products that are laid: by act, method and area. Figures: shop default, unsourced. */
import { type Grit, gritName } from '../abrasives'
import { actOf, does, type Method, type Step } from '../acts'
import { MATERIALS } from '../materials'

export const UNITS = ['ml', 'g', 'piece', 'm'] as const
export type Unit = (typeof UNITS)[number]
/** A price is for so many of a unit: a litre, a kilogram, one, a metre. */
export const PRICED_BY: Readonly<Record<Unit, number>> = { ml: 1000, g: 1000, piece: 1, m: 1 }

/** "1.25 L", "250 ml", "3 pcs", "12 m". */
export function quantitySaid(amount: number, unit: Unit): string {
  // "pieces" are what the shop works on
  if (unit === 'piece') return `${Math.round(amount * 100) / 100} ${amount === 1 ? 'pc' : 'pcs'}`
  if (unit === 'm') return `${Math.round(amount * 10) / 10} m`
  const [big, small] = unit === 'ml' ? ['L', 'ml'] : ['kg', 'g']
  return Math.abs(amount) >= 1000 ? `${(amount / 1000).toFixed(2)} ${big}` : `${Math.round(amount)} ${small}`
}

const TABLE = {
  'abrasive-disc': { name: 'Abrasive disc', unit: 'piece', graded: true },
  'abrasive-sheet': { name: 'Abrasive sheet', unit: 'piece', graded: true },
  'abrasive-belt': { name: 'Abrasive belt', unit: 'piece', graded: true },
  'fine-abrasive': { name: 'Fine abrasive', unit: 'piece', graded: true },
  'non-woven-pad': { name: 'Non-woven pad', unit: 'piece', graded: false },
  'tack-cloth': { name: 'Tack cloth', unit: 'piece', graded: false },
  'rag': { name: 'Cotton rag', unit: 'piece', graded: false },
  'masking-tape': { name: 'Masking tape', unit: 'm', graded: false },
  'masking-paper': { name: 'Masking paper', unit: 'm', graded: false },
  'paint-filter': { name: 'Paint filter', unit: 'piece', graded: false },
  'gloves': { name: 'Pair of gloves', unit: 'piece', graded: false },
  'cartridge': { name: 'Pair of respirator cartridges', unit: 'piece', graded: false },
  'hardware': { name: 'Hardware', unit: 'piece', graded: false },
} as const satisfies Record<string, { name: string; unit: Unit; graded: boolean }>
export type Consumable = keyof typeof TABLE
export const CONSUMABLES: Readonly<Record<Consumable, { name: string; unit: Unit; graded: boolean }>> = TABLE
export const CONSUMABLE_SLUGS = Object.keys(TABLE) as Consumable[]
export const isConsumable = (slug: string): slug is Consumable => Object.hasOwn(TABLE, slug)
/** Of a product's class, as a shelf has it. */
export const nameOfClass = (slug: string): string =>
  isConsumable(slug) ? TABLE[slug].name : (MATERIALS.find(m => m.slug === slug)?.name ?? slug)
/** Of a product's class; liquids are measured. */
export const unitOf = (slug: string): Unit => (isConsumable(slug) ? TABLE[slug].unit : 'ml')

export interface Eaten {
  slug: Consumable
  /** '': it has none */
  grit: string
  /** in its unit */
  amount: number
}
/** m² that one abrasive of a grit lasts for. */
const LASTS_M2: Partial<Record<Method, readonly [Consumable, number]>> = {
  'random-orbit': ['abrasive-disc', 0.7],
  'finishing-sander': ['abrasive-sheet', 1],
  'belt': ['abrasive-belt', 3],
  'hand': ['abrasive-sheet', 1.5],
  'wet': ['abrasive-sheet', 1.5],
}
const [PAD_M2, TACK_M2, RAG_M2, PAPER_WIDE_M] = [2, 4, 0.5, 0.3]
const up = (amount: number) => Math.max(1, Math.ceil(amount - 1e-9))

function abrasives({ method, grits, passes }: Asked, m2: number): Eaten[] {
  const [slug, lasts] = LASTS_M2[method] ?? []
  if (!slug || !lasts) return []
  // paper comes by its grit; wool, pads, foam and powders are another shelf
  const isPaper = (g: Grit) => g.scale === 'P' || g.scale === 'CAMI'
  return grits.map(g => ({
    ...{ slug: isPaper(g) ? slug : ('fine-abrasive' as const), grit: gritName(g) },
    amount: up((m2 * passes) / lasts),
  }))
}
type Asked = Pick<Step, 'kind' | 'method' | 'grits' | 'passes' | 'product' | 'fields'>
/** What a step eats beside its product. @param m2 of all its faces */
export function eatenBy(step: Asked, m2: number): Eaten[] {
  const { makes } = actOf(step)
  const one = (slug: Consumable, amount: number, is: boolean): Eaten[] => (is ? [{ slug, grit: '', amount }] : [])
  return [
    ...abrasives(step, m2),
    ...one('non-woven-pad', up(m2 / PAD_M2), step.kind === 'pad' || step.kind === 'rub-out'),
    ...one('tack-cloth', up(m2 / TACK_M2), step.kind === 'clean-off' && step.fields.dustBy !== 'air-only'),
    ...one('rag', up(m2 / RAG_M2), step.method === 'rag' || step.kind === 'oil-off'),
    ...one('masking-tape', Math.ceil(4 * Math.sqrt(m2)), step.kind === 'mask'),
    ...one('masking-paper', Math.ceil(m2 / PAPER_WIDE_M), step.kind === 'mask'),
    ...one('paint-filter', step.passes, step.method === 'spray' && does(step, 'covers')),
    ...one('gloves', 1, makes.vapour && step.product !== null),
  ]
}

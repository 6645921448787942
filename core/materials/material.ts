/** What is said of a product class, and what most films share. */
import { type AirNeed, GENERAL_AIR } from '../air'

export type Base = 'oil' | 'water' | 'alcohol' | 'lacquer' | 'none'
export type Role =
  | 'film'
  | 'oil'
  | 'stain'
  | 'gel'
  | 'dye'
  | 'conditioner'
  | 'stripper'
  | 'cleaner'
  | 'filler'
  | 'bleach'
  | 'toner'
  | 'glaze'
  | 'paint-wash'
  | 'wax'
  | 'putty'

/**
 * catalysed: two parts · stearate: soapy sanding sealer · yellows: ambers with age · clear: water-clear · waxed: holds
 * shellac's wax · wiped: goes on by rag · coloured: hides what is below · flatted: for a sheen · needs-open-wood: goes
 * into bare wood only
 */
export type Trait =
  | 'catalysed'
  | 'hardener'
  | 'methylene-chloride'
  | 'stearate'
  | 'yellows'
  | 'clear'
  | 'waxed'
  | 'needs-open-wood'
  | 'exterior'
  | 'wiped'
  | 'coloured'

/** Real time over the time by label and air: P10, P50 and P90, as a shop has learnt it. */
export interface Dries {
  early: number
  likely: number
  safe: number
}
export interface Material {
  slug: string
  name: string
  role: Role
  base: Base
  /** volume solids, range */
  solids: readonly [number, number]
  /** wet film per coat; null where it lies in the wood and `spread_g_m2` counts */
  wet_um: number | null
  spread_g_m2: readonly [first: number, later: number] | null
  density: number
  coats: readonly [likely: number, worst: number]
  /** minutes until the next coat: label from and to */
  recoat_min: readonly [number, number]
  /** minutes after which the next coat needs a scuff; null where it melts in or never closes */
  recoatMax_min: number | null
  meltsIn: boolean
  /** minutes until it may be handled */
  handle_min: number
  /** days until it may be rubbed out or used hard */
  cure_d: readonly [number, number]
  air: AirNeed | null
  betweenCoats_P: number | null
  /** minutes within which it must be wiped off; null where it is not */
  wipe_min: number | null
  /** minutes that a mixed pot lasts, early and late; null: nothing is mixed, or it does not set in the pot */
  potLife_min: readonly [early: number, late: number] | null
  /** most reducer that it takes, per cent of its volume (classes: from memory, films in two parts handbook 10.5) */
  thinMost_pct: number | null
  /** the sheen that its label names; null: gloss, or not said */
  sheen: string | null
  /** what makes it different to other layers */
  traits: readonly Trait[]
  /** 1–5; shop default, unsourced */
  durability: number
  repairable: number
  /** from memory, unsourced */
  voc_g_l: number
  transfer: number
  minutes_m2: number
  setup_min: number
  /** minor units of the shop's currency for one litre (or kg); shop default */
  price_minor: number
  /** as this shop has learnt it; null: nobody looked yet, the usual spread counts */
  dries: Dries | null
  /** fields that the product's own label says */
  labelled: readonly (keyof Material)[]
}

/** Where a figure of a product comes from: its own label, what is usual for its class, or nobody's word but ours. */
export type FigureSource = 'label' | 'usual' | 'default'
/** Handbook 17.2 and 17.3 give these as shop defaults without a source; the others are usual figures of 10.1. */
const OUR_DEFAULTS: readonly (keyof Material)[] = ['wet_um', 'spread_g_m2', 'density', 'minutes_m2']
export const sourceOf = (m: Material, figure: keyof Material): FigureSource => {
  if (m.labelled.includes(figure)) return 'label'
  return OUR_DEFAULTS.includes(figure) ? 'default' : 'usual'
}

/** Hours and days in minutes. */
export const h = (hours: number) => hours * 60
export const d = (days: number) => days * 1440

export const film = (m: Partial<Material> & Pick<Material, 'slug' | 'name' | 'base'>): Material => ({
  role: 'film',
  solids: [0.2, 0.25],
  wet_um: 90,
  spread_g_m2: null,
  density: 0.9,
  coats: [2, 3],
  recoat_min: [60, 60],
  recoatMax_min: null,
  wipe_min: null,
  potLife_min: null,
  thinMost_pct: null,
  sheen: null,
  traits: [],
  durability: 3,
  repairable: 3,
  voc_g_l: 0,
  meltsIn: false,
  handle_min: d(1),
  cure_d: [7, 14],
  air: GENERAL_AIR,
  betweenCoats_P: 320,
  transfer: 0.95,
  minutes_m2: 10,
  setup_min: 8,
  price_minor: 30000,
  dries: null,
  labelled: [],
  ...m,
})
export const inWood = (
  m: Partial<Material> & Pick<Material, 'slug' | 'name' | 'base' | 'role' | 'spread_g_m2'>,
): Material => film({ solids: [0, 0], wet_um: null, coats: [1, 1], betweenCoats_P: null, cure_d: [1, 2], ...m })

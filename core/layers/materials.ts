/**
 * Materials by class, with usual figures at 21 °C and 50 % RH (common practice; the product's label outranks all of them)
 * and the shop defaults for wet film, density and price (unsourced). Minutes, µm, g/m², g/ml, fractions.
 */
import { GENERAL_AIR, LACQUER_AIR, type AirNeed } from '../air'

export type Base = 'oil' | 'water' | 'alcohol' | 'lacquer' | 'none'
export type Role = 'film' | 'oil' | 'stain' | 'gel' | 'dye' | 'conditioner' | 'stripper' | 'cleaner' | 'filler' | 'bleach' | 'toner' | 'glaze' | 'paint-wash' | 'wax'

/** catalysed: two parts · stearate: soapy sanding sealer · yellows: ambers with age · clear: water-clear · waxed: holds shellac's wax · flatted: for a sheen · needs-open-wood: goes into bare wood only */
export type Trait = 'catalysed' | 'stearate' | 'yellows' | 'clear' | 'waxed' | 'needs-open-wood' | 'exterior'

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
  /** what makes it different to other layers */
  traits: readonly Trait[]
  /** 1–5; shop default, unsourced */
  durability: number
  repairable: number
  voc_g_l: number
  transfer: number
  minutes_m2: number
  setup_min: number
  /** minor units of the shop's currency for one litre (or kg); shop default */
  price_minor: number
}

const h = (hours: number) => hours * 60
const d = (days: number) => days * 1440

const film = (m: Partial<Material> & Pick<Material, 'slug' | 'name' | 'base'>): Material => ({
  role: 'film', solids: [0.2, 0.25], wet_um: 90, spread_g_m2: null, density: 0.9, coats: [2, 3], recoat_min: [60, 60], recoatMax_min: null,
  wipe_min: null, potLife_min: null, traits: [], durability: 3, repairable: 3, voc_g_l: 500,
  meltsIn: false, handle_min: d(1), cure_d: [7, 14], air: GENERAL_AIR, betweenCoats_P: 320, transfer: 0.95, minutes_m2: 10, setup_min: 8, price_minor: 30000, ...m,
})
const inWood = (m: Partial<Material> & Pick<Material, 'slug' | 'name' | 'base' | 'role' | 'spread_g_m2'>): Material =>
  film({ solids: [0, 0], wet_um: null, coats: [1, 1], betweenCoats_P: null, cure_d: [1, 2], ...m })

export const MATERIALS: readonly Material[] = [
  film({ slug: 'dewaxed-shellac', name: 'dewaxed shellac', base: 'alcohol', solids: [0.08, 0.2], wet_um: 60, density: 0.88, coats: [2, 3], recoat_min: [60, 60], meltsIn: true,
    handle_min: d(1), cure_d: [1, 3], betweenCoats_P: 400, minutes_m2: 9, price_minor: 28000, traits: ['yellows'], durability: 2, repairable: 5, voc_g_l: 600 }),
  film({ slug: 'shellac-brushed', name: 'brushed shellac', base: 'alcohol', solids: [0.15, 0.25], wet_um: 60, density: 0.88, coats: [5, 6], recoat_min: [60, 60], meltsIn: true,
    handle_min: d(1), cure_d: [7, 7], betweenCoats_P: null, minutes_m2: 9, price_minor: 27000, traits: ['yellows', 'waxed'], durability: 2, repairable: 5, voc_g_l: 600 }),
  film({ slug: 'lacquer-sanding-sealer', name: 'lacquer sanding sealer', base: 'lacquer', solids: [0.18, 0.25], wet_um: 90, density: 0.92, coats: [1, 3], recoat_min: [30, 60], meltsIn: true,
    air: LACQUER_AIR, transfer: 0.65, minutes_m2: 5, setup_min: 23, price_minor: 24000, traits: ['stearate'], durability: 2, repairable: 4, voc_g_l: 680 }),
  film({ slug: 'vinyl-sealer', name: 'vinyl sealer', base: 'lacquer', solids: [0.15, 0.2], wet_um: 75, density: 0.9, coats: [1, 2], recoat_min: [30, 60], recoatMax_min: h(4), meltsIn: true,
    air: LACQUER_AIR, transfer: 0.65, minutes_m2: 5, setup_min: 23, price_minor: 29000, durability: 3, voc_g_l: 680 }),
  film({ slug: 'nitrocellulose-lacquer', name: 'nitrocellulose lacquer', base: 'lacquer', solids: [0.18, 0.25], wet_um: 90, density: 0.93, coats: [3, 6], recoat_min: [30, 60], meltsIn: true,
    handle_min: d(1), cure_d: [14, 21], air: LACQUER_AIR, betweenCoats_P: null, transfer: 0.65, minutes_m2: 5, setup_min: 23, price_minor: 26000, traits: ['yellows'], durability: 3, repairable: 4, voc_g_l: 680 }),
  film({ slug: 'waterborne-polyurethane', name: 'waterborne polyurethane', base: 'water', solids: [0.28, 0.35], wet_um: 110, density: 1.04, coats: [3, 4], recoat_min: [h(2), h(2)], recoatMax_min: h(24),
    cure_d: [14, 30], betweenCoats_P: 320, minutes_m2: 10, price_minor: 38000, traits: ['clear'], durability: 4, repairable: 2, voc_g_l: 130 }),
  film({ slug: 'oil-polyurethane', name: 'oil polyurethane', base: 'oil', solids: [0.4, 0.5], wet_um: 90, density: 0.9, coats: [3, 3], recoat_min: [d(1), d(1)], recoatMax_min: d(3),
    handle_min: d(3), cure_d: [30, 30], betweenCoats_P: 320, minutes_m2: 10, price_minor: 30000, traits: ['yellows'], durability: 5, repairable: 1, voc_g_l: 450 }),
  film({ slug: 'wiping-varnish', name: 'wiping varnish', base: 'oil', solids: [0.2, 0.3], wet_um: 25, density: 0.87, coats: [4, 4], recoat_min: [d(1), d(1)], recoatMax_min: d(3),
    handle_min: d(1), cure_d: [30, 30], betweenCoats_P: 400, minutes_m2: 8, price_minor: 31000, traits: ['yellows'], durability: 3, repairable: 3, voc_g_l: 500 }),
  film({ slug: 'resin-oil-varnish', name: 'resin-oil varnish', base: 'oil', solids: [0.25, 0.25], wet_um: 100, density: 0.88, coats: [3, 3], recoat_min: [d(1), d(1)], recoatMax_min: d(3),
    handle_min: d(1), cure_d: [7, 30], betweenCoats_P: 220, minutes_m2: 7, price_minor: 36000, traits: ['yellows'], durability: 4, repairable: 3, voc_g_l: 450 }),
  film({ slug: 'urethane-2c', name: 'two-part urethane', potLife_min: [h(2), h(6)], base: 'lacquer', solids: [0.35, 0.5], wet_um: 110, density: 1, coats: [2, 2], recoat_min: [h(1), h(12)], recoatMax_min: d(1),
    handle_min: d(3), cure_d: [7, 7], betweenCoats_P: 400, transfer: 0.65, minutes_m2: 5, setup_min: 23, price_minor: 52000, traits: ['catalysed', 'clear'], durability: 5, repairable: 1, voc_g_l: 550 }),
  film({ slug: 'opaque-colour', name: 'opaque colour', base: 'water', solids: [0.3, 0.45], wet_um: 60, density: 1.1, coats: [3, 3], recoat_min: [5, 30], handle_min: d(1), cure_d: [7, 7], betweenCoats_P: 320,
    transfer: 0.65, minutes_m2: 5, setup_min: 23, price_minor: 34000, durability: 4, repairable: 3, voc_g_l: 120 }),
  film({ slug: 'primer-surfacer', name: 'primer-surfacer', base: 'lacquer', solids: [0.3, 0.45], wet_um: 120, density: 1.2, coats: [2, 4], recoat_min: [10, 60], cure_d: [1, 1], betweenCoats_P: 320,
    transfer: 0.65, minutes_m2: 5, setup_min: 23, price_minor: 30000, durability: 3, voc_g_l: 600 }),
  film({ slug: 'varnish-oil', name: 'varnish oil', role: 'oil', base: 'oil', solids: [0.3, 0.6], wet_um: null, spread_g_m2: [45, 20], density: 0.88, coats: [4, 5], recoat_min: [d(1), d(4)],
    handle_min: d(1), cure_d: [7, 14], betweenCoats_P: null, transfer: 1, minutes_m2: 6, price_minor: 32000, wipe_min: 60, traits: ['yellows'], durability: 3, repairable: 5, voc_g_l: 400 }),
  film({ slug: 'hardwax-oil-2c', name: 'two-part hardwax oil', role: 'oil', base: 'oil', solids: [1, 1], wet_um: null, spread_g_m2: [30, 30], density: 0.92, coats: [1, 1], recoat_min: [d(1), d(1)],
    handle_min: d(1.5), cure_d: [5, 7], betweenCoats_P: null, transfer: 1, minutes_m2: 8, price_minor: 160000, wipe_min: 50, traits: ['needs-open-wood'], durability: 4, repairable: 5, voc_g_l: 5 }),
  film({ slug: 'raw-linseed', name: 'raw linseed oil', role: 'oil', base: 'oil', solids: [1, 1], wet_um: null, spread_g_m2: [40, 40], density: 0.93, coats: [1, 1], recoat_min: [d(1), d(3)],
    handle_min: d(3), cure_d: [14, 30], betweenCoats_P: null, transfer: 1, minutes_m2: 8, price_minor: 12000, wipe_min: 60, traits: ['yellows', 'needs-open-wood'], durability: 1, repairable: 5, voc_g_l: 0 }),
  film({ slug: 'boiled-linseed', name: 'boiled linseed oil', role: 'oil', base: 'oil', solids: [1, 1], wet_um: null, spread_g_m2: [40, 40], density: 0.93, coats: [1, 1], recoat_min: [d(1), d(2)],
    handle_min: d(2), cure_d: [14, 14], betweenCoats_P: null, transfer: 1, minutes_m2: 8, price_minor: 13000, wipe_min: 60, traits: ['yellows', 'needs-open-wood'], durability: 1, repairable: 5, voc_g_l: 0 }),
  inWood({ slug: 'gel-stain', name: 'oil-based gel stain', role: 'gel', base: 'oil', spread_g_m2: [60, 60], density: 0.95, coats: [1, 2], recoat_min: [h(8), h(24)], handle_min: d(1),
    transfer: 1, minutes_m2: 12, price_minor: 34000 }),
  inWood({ slug: 'pigment-stain', name: 'penetrating oil stain', role: 'stain', base: 'oil', spread_g_m2: [60, 60], density: 0.9, coats: [1, 1], recoat_min: [h(2), h(2)], handle_min: d(1),
    transfer: 1, minutes_m2: 10, price_minor: 30000 }),
  inWood({ slug: 'exterior-stain', name: 'exterior oil stain', role: 'stain', base: 'oil', spread_g_m2: [60, 60], density: 0.9, recoat_min: [h(4), h(12)], handle_min: d(1), transfer: 1, minutes_m2: 10, price_minor: 22000, traits: ['exterior'] }),
  inWood({ slug: 'water-dye', name: 'water dye', role: 'dye', base: 'water', spread_g_m2: [30, 30], density: 1, coats: [2, 3], recoat_min: [h(1), h(4)], handle_min: h(12), transfer: 1, minutes_m2: 5, price_minor: 26000 }),
  inWood({ slug: 'alcohol-dye', name: 'alcohol dye', role: 'dye', base: 'alcohol', spread_g_m2: [30, 30], density: 0.8, coats: [2, 3], recoat_min: [10, 30], handle_min: h(1), transfer: 1, minutes_m2: 5, price_minor: 29000 }),
  film({ slug: 'lacquer-toner', name: 'lacquer toner', role: 'toner', base: 'lacquer', solids: [0.1, 0.15], wet_um: 8, density: 0.9, coats: [3, 5], recoat_min: [10, 30], meltsIn: true, air: LACQUER_AIR, betweenCoats_P: null, transfer: 0.65, minutes_m2: 5, setup_min: 23, price_minor: 30000 }),
  film({ slug: 'glaze', name: 'oil glaze', role: 'glaze', base: 'oil', solids: [0.3, 0.4], wet_um: 15, density: 0.95, coats: [1, 1], recoat_min: [h(12), d(1)], betweenCoats_P: null, minutes_m2: 12, price_minor: 33000 }),
  inWood({ slug: 'paint-wash', name: 'paint wash', role: 'paint-wash', base: 'water', spread_g_m2: [50, 50], density: 1.1, recoat_min: [h(2), h(12)], handle_min: h(12), transfer: 1, minutes_m2: 10, price_minor: 20000 }),
  inWood({ slug: 'oil-conditioner', name: 'oil-based stain conditioner', role: 'conditioner', base: 'oil', spread_g_m2: [70, 70], density: 0.8, recoat_min: [5, 15], recoatMax_min: h(2), handle_min: h(2),
    transfer: 1, minutes_m2: 6, price_minor: 24000 }),
  inWood({ slug: 'water-conditioner', name: 'water-based stain conditioner', role: 'conditioner', base: 'water', spread_g_m2: [70, 70], density: 1, recoat_min: [5, 15], recoatMax_min: h(2), handle_min: h(2),
    transfer: 1, minutes_m2: 6, price_minor: 22000 }),
  inWood({ slug: 'two-part-bleach', name: 'two-part bleach', role: 'bleach', base: 'water', spread_g_m2: [150, 150], density: 1.1, recoat_min: [h(8), h(12)], handle_min: d(1), transfer: 1, minutes_m2: 15, price_minor: 24000 }),
  inWood({ slug: 'oxalic-acid', name: 'oxalic acid solution', role: 'bleach', base: 'water', spread_g_m2: [120, 120], density: 1.02, recoat_min: [30, h(2)], handle_min: d(1), transfer: 1, minutes_m2: 15, price_minor: 9000 }),
  inWood({ slug: 'ammonia', name: 'dilute ammonia', role: 'dye', base: 'water', spread_g_m2: [100, 100], density: 1, recoat_min: [h(2), h(12)], handle_min: h(12), transfer: 1, minutes_m2: 8, price_minor: 6000 }),
  inWood({ slug: 'paste-filler', name: 'oil-based paste filler', role: 'filler', base: 'oil', spread_g_m2: [120, 60], density: 1.45, coats: [1, 2], recoat_min: [15, 30], handle_min: d(1), transfer: 1, minutes_m2: 25, price_minor: 31000 }),
  inWood({ slug: 'waterborne-filler', name: 'waterborne grain filler', role: 'filler', base: 'water', spread_g_m2: [90, 60], density: 1.4, coats: [2, 2], recoat_min: [h(2), h(4)], handle_min: h(4), transfer: 1, minutes_m2: 15, price_minor: 33000 }),
  film({ slug: 'paste-wax', name: 'paste wax', role: 'wax', base: 'oil', solids: [0.3, 0.4], wet_um: null, spread_g_m2: [20, 10], density: 0.85, coats: [1, 2], recoat_min: [30, h(2)], cure_d: [1, 1], betweenCoats_P: null, transfer: 1, minutes_m2: 12, price_minor: 40000, durability: 1, repairable: 5, voc_g_l: 600 }),
  inWood({ slug: 'solvent-gel-stripper', name: 'solvent gel stripper (citrus or soy type)', role: 'stripper', base: 'none', spread_g_m2: [450, 450], density: 1.05, recoat_min: [15, 30], recoatMax_min: 30,
    handle_min: 0, transfer: 1, minutes_m2: 6, air: null, price_minor: 21000 }),
  inWood({ slug: 'white-spirit', name: 'white spirit', role: 'cleaner', base: 'oil', spread_g_m2: [80, 80], density: 0.78, recoat_min: [30, 60], handle_min: 0, transfer: 1, minutes_m2: 12, air: null, price_minor: 9000 }),
  inWood({ slug: 'naphtha', name: 'naphtha', role: 'cleaner', base: 'oil', spread_g_m2: [60, 60], density: 0.75, recoat_min: [15, 30], handle_min: 0, transfer: 1, minutes_m2: 8, air: null, price_minor: 9500 }),
  inWood({ slug: 'alcohol', name: 'alcohol', role: 'cleaner', base: 'alcohol', spread_g_m2: [60, 60], density: 0.79, recoat_min: [15, 30], handle_min: 0, transfer: 1, minutes_m2: 20, air: null, price_minor: 8000 }),
  inWood({ slug: 'lacquer-thinner', name: 'lacquer thinner', role: 'cleaner', base: 'lacquer', spread_g_m2: [60, 60], density: 0.83, recoat_min: [15, 30], handle_min: 0, transfer: 1, minutes_m2: 20, air: null, price_minor: 9000 }),
  inWood({ slug: 'mild-soap', name: 'mild soap and water', role: 'cleaner', base: 'water', spread_g_m2: [40, 40], density: 1, recoat_min: [30, 60], handle_min: 0, transfer: 1, minutes_m2: 6, air: null, price_minor: 3000 }),
]

const bySlug = new Map(MATERIALS.map(m => [m.slug, m]))

/** @throws RangeError when there is no such class of material. */
export function materialOf(slug: string): Material {
  const material = bySlug.get(slug)
  if (!material) throw new RangeError(`There is no product class "${slug}". Choose one from the store.`)
  return material
}

/** What the last layer may be. */
export const FINISHES = ['dewaxed-shellac', 'shellac-brushed', 'nitrocellulose-lacquer', 'waterborne-polyurethane', 'oil-polyurethane', 'wiping-varnish', 'resin-oil-varnish', 'urethane-2c', 'varnish-oil', 'hardwax-oil-2c', 'raw-linseed', 'paste-wax'] as const
export type Finish = typeof FINISHES[number]
export const COLOURS = ['none', 'gel-stain', 'pigment-stain', 'water-dye', 'alcohol-dye', 'lacquer-toner', 'glaze', 'paint-wash', 'ammonia'] as const
export type Colour = typeof COLOURS[number]
export const FILLS = ['none', 'paste-filler', 'waterborne-filler'] as const
export type Fill = typeof FILLS[number]
export const BLEACHES = ['none', 'two-part-bleach', 'oxalic-acid'] as const
export type Bleach = typeof BLEACHES[number]

/** Volume solids to count with: the middle of the range. */
export const solidsOf = (m: Material): number => (m.solids[0] + m.solids[1]) / 2
/** Dry film of one coat, µm: wet film × volume solids. */
export const dryFilm_um = (m: Material): number => m.wet_um === null ? 0 : m.wet_um * solidsOf(m)

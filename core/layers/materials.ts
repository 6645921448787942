/**
 * Materials by class, with usual figures at 21 °C and 50 % RH (common practice; the product's label outranks all of them)
 * and the shop defaults for wet film, density and price (unsourced). Minutes, µm, g/m², g/ml, fractions.
 */
import { GENERAL_AIR, LACQUER_AIR, type AirNeed } from '../air'

export type Base = 'oil' | 'water' | 'alcohol' | 'lacquer' | 'none'
export type Role = 'film' | 'oil' | 'stain' | 'gel' | 'conditioner' | 'stripper' | 'cleaner' | 'filler'

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
  meltsIn: false, handle_min: d(1), cure_d: [7, 14], air: GENERAL_AIR, betweenCoats_P: 320, transfer: 0.95, minutes_m2: 10, setup_min: 8, price_minor: 30000, ...m,
})
const inWood = (m: Partial<Material> & Pick<Material, 'slug' | 'name' | 'base' | 'role' | 'spread_g_m2'>): Material =>
  film({ solids: [0, 0], wet_um: null, coats: [1, 1], betweenCoats_P: null, cure_d: [1, 2], ...m })

export const MATERIALS: readonly Material[] = [
  film({ slug: 'dewaxed-shellac', name: 'dewaxed shellac', base: 'alcohol', solids: [0.08, 0.2], wet_um: 60, density: 0.88, coats: [2, 3], recoat_min: [60, 60], meltsIn: true,
    handle_min: d(1), cure_d: [1, 3], betweenCoats_P: 400, minutes_m2: 9, price_minor: 28000 }),
  film({ slug: 'nitrocellulose-lacquer', name: 'nitrocellulose lacquer', base: 'lacquer', solids: [0.18, 0.25], wet_um: 90, density: 0.93, coats: [3, 6], recoat_min: [30, 60], meltsIn: true,
    handle_min: d(1), cure_d: [14, 21], air: LACQUER_AIR, betweenCoats_P: null, transfer: 0.65, minutes_m2: 5, setup_min: 23, price_minor: 26000 }),
  film({ slug: 'waterborne-polyurethane', name: 'waterborne polyurethane', base: 'water', solids: [0.28, 0.35], wet_um: 110, density: 1.04, coats: [3, 4], recoat_min: [h(2), h(2)], recoatMax_min: h(24),
    cure_d: [14, 30], betweenCoats_P: 320, minutes_m2: 10, price_minor: 38000 }),
  film({ slug: 'varnish-oil', name: 'varnish oil', role: 'oil', base: 'oil', solids: [0.3, 0.6], wet_um: null, spread_g_m2: [45, 20], density: 0.88, coats: [4, 5], recoat_min: [d(1), d(4)],
    handle_min: d(1), cure_d: [7, 14], betweenCoats_P: null, transfer: 1, minutes_m2: 6, price_minor: 32000 }),
  inWood({ slug: 'gel-stain', name: 'oil-based gel stain', role: 'gel', base: 'oil', spread_g_m2: [60, 60], density: 0.95, coats: [1, 2], recoat_min: [h(8), h(24)], handle_min: d(1),
    transfer: 1, minutes_m2: 12, price_minor: 34000 }),
  inWood({ slug: 'pigment-stain', name: 'penetrating oil stain', role: 'stain', base: 'oil', spread_g_m2: [60, 60], density: 0.9, coats: [1, 1], recoat_min: [h(2), h(2)], handle_min: d(1),
    transfer: 1, minutes_m2: 10, price_minor: 30000 }),
  inWood({ slug: 'oil-conditioner', name: 'oil-based stain conditioner', role: 'conditioner', base: 'oil', spread_g_m2: [70, 70], density: 0.8, recoat_min: [5, 15], recoatMax_min: h(2), handle_min: h(2),
    transfer: 1, minutes_m2: 6, price_minor: 24000 }),
  inWood({ slug: 'water-conditioner', name: 'water-based stain conditioner', role: 'conditioner', base: 'water', spread_g_m2: [70, 70], density: 1, recoat_min: [5, 15], recoatMax_min: h(2), handle_min: h(2),
    transfer: 1, minutes_m2: 6, price_minor: 22000 }),
  inWood({ slug: 'solvent-gel-stripper', name: 'solvent gel stripper (citrus or soy type)', role: 'stripper', base: 'none', spread_g_m2: [450, 450], density: 1.05, recoat_min: [15, 30], recoatMax_min: 30,
    handle_min: 0, transfer: 1, minutes_m2: 6, air: null, price_minor: 21000 }),
  inWood({ slug: 'white-spirit', name: 'white spirit', role: 'cleaner', base: 'oil', spread_g_m2: [80, 80], density: 0.78, recoat_min: [30, 60], handle_min: 0, transfer: 1, minutes_m2: 12, air: null, price_minor: 9000 }),
  inWood({ slug: 'mild-soap', name: 'mild soap and water', role: 'cleaner', base: 'water', spread_g_m2: [40, 40], density: 1, recoat_min: [30, 60], handle_min: 0, transfer: 1, minutes_m2: 6, air: null, price_minor: 3000 }),
]

const bySlug = new Map(MATERIALS.map(m => [m.slug, m]))

/** @throws RangeError when there is no such class of material. */
export function materialOf(slug: string): Material {
  const material = bySlug.get(slug)
  if (!material) throw new RangeError(`There is no product class "${slug}". Choose one from the store.`)
  return material
}

export const FINISHES = ['dewaxed-shellac', 'waterborne-polyurethane', 'varnish-oil', 'nitrocellulose-lacquer'] as const
export type Finish = typeof FINISHES[number]
export const COLOURS = ['none', 'gel-stain', 'pigment-stain'] as const
export type Colour = typeof COLOURS[number]

/** Volume solids to count with: the middle of the range. */
export const solidsOf = (m: Material): number => (m.solids[0] + m.solids[1]) / 2
/** Dry film of one coat, µm: wet film × volume solids. */
export const dryFilm_um = (m: Material): number => m.wet_um === null ? 0 : m.wet_um * solidsOf(m)

/** Species and the water in wood. */
import type { Air } from '../air'

export interface Species { slug: string, name: string, pores: 'open' | 'closed', blotches: boolean, tannin: boolean, softwood: boolean, tone: string }

/** Pores, blotching and tannin: common practice. `tone` is the drawing's colour only. */
export const SPECIES: readonly Species[] = [
  { slug: 'oak', name: 'oak', pores: 'open', blotches: false, tannin: true, softwood: false, tone: '#c49a66' },
  { slug: 'ash', name: 'ash', pores: 'open', blotches: false, tannin: false, softwood: false, tone: '#d6b98c' },
  { slug: 'elm', name: 'elm', pores: 'open', blotches: false, tannin: false, softwood: false, tone: '#b98d5e' },
  { slug: 'walnut', name: 'walnut', pores: 'open', blotches: false, tannin: true, softwood: false, tone: '#7d5a3f' },
  { slug: 'mahogany', name: 'mahogany', pores: 'open', blotches: false, tannin: true, softwood: false, tone: '#9a5b3c' },
  { slug: 'teak', name: 'teak', pores: 'open', blotches: false, tannin: false, softwood: false, tone: '#a97c4b' },
  { slug: 'chestnut', name: 'chestnut', pores: 'open', blotches: false, tannin: true, softwood: false, tone: '#b08a5c' },
  { slug: 'cherry', name: 'cherry', pores: 'closed', blotches: true, tannin: false, softwood: false, tone: '#b5774c' },
  { slug: 'maple', name: 'maple', pores: 'closed', blotches: false, tannin: false, softwood: false, tone: '#dcc49c' },
  { slug: 'birch', name: 'birch', pores: 'closed', blotches: true, tannin: false, softwood: false, tone: '#d8bd90' },
  { slug: 'beech', name: 'beech', pores: 'closed', blotches: false, tannin: false, softwood: false, tone: '#cda27a' },
  { slug: 'poplar', name: 'poplar', pores: 'closed', blotches: true, tannin: false, softwood: true, tone: '#cfc19a' },
  { slug: 'pine', name: 'pine', pores: 'closed', blotches: true, tannin: false, softwood: true, tone: '#dcb67a' },
  { slug: 'unknown', name: 'unknown wood', pores: 'open', blotches: true, tannin: true, softwood: false, tone: '#b99a74' },
]

const bySlug = new Map(SPECIES.map(s => [s.slug, s]))

/** The species, or the cautious `unknown` (blotches, tannin) when the slug is not in the table. */
export const speciesOf = (slug: string): Species => bySlug.get(slug) ?? bySlug.get('unknown')!

/**
 * Equilibrium moisture content of wood in percent. Hailwood–Horrobin, Wood Handbook FPL-GTR-190, ch. 4, eq. 4-5 in °C (from memory).
 * @throws RangeError unless 0 ≤ rh < 1.
 */
export function equilibriumMoisture_pct({ temperature_C: t, rh: h }: Air): number {
  if (!(h >= 0 && h < 1)) throw new RangeError('Relative humidity is a fraction from 0 to below 1.')
  const w = 349 + 1.29 * t + 0.0135 * t * t
  const k = 0.805 + 0.000736 * t - 0.00000273 * t * t
  const k1 = 6.27 - 0.00938 * t - 0.000303 * t * t
  const k2 = 1.91 + 0.0407 * t - 0.000293 * t * t
  const kh = k * h
  return (1800 / w) * (kh / (1 - kh) + (k1 * kh + 2 * k1 * k2 * kh * kh) / (1 + k1 * kh + k1 * k2 * kh * kh))
}

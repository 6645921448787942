/**
 * Solvents with their limits in air. Limits: NIOSH Pocket Guide to Chemical Hazards (recommended limits; methylene
 * chloride: OSHA's permissible one), from memory. A shop may set its own; local codes outrank both.
 */
export interface Solvent {
  name: string
  /** g/mol; of mixtures a usual mean */
  molar_g: number
  /** over a working day; one of both is the source's own */
  limit: { ppm: number } | { mg_m3: number }
  /** lower explosive limit, % of the air by volume */
  lel_pct: number
}
export const SOLVENTS = {
  'acetone': { name: 'acetone', molar_g: 58.08, limit: { ppm: 250 }, lel_pct: 2.5 },
  'ethanol': { name: 'ethanol', molar_g: 46.07, limit: { ppm: 1000 }, lel_pct: 3.3 },
  'toluene': { name: 'toluene', molar_g: 92.14, limit: { ppm: 100 }, lel_pct: 1.1 },
  'xylene': { name: 'xylene', molar_g: 106.17, limit: { ppm: 100 }, lel_pct: 1 },
  'white-spirit': { name: 'white spirit', molar_g: 140, limit: { mg_m3: 350 }, lel_pct: 0.8 },
  'butyl-acetate': { name: 'n-butyl acetate', molar_g: 116.16, limit: { ppm: 150 }, lel_pct: 1.7 },
  'turpentine': { name: 'turpentine', molar_g: 136.24, limit: { ppm: 100 }, lel_pct: 0.8 },
  'methylene-chloride': { name: 'methylene chloride', molar_g: 84.93, limit: { ppm: 25 }, lel_pct: 13 },
} as const satisfies Record<string, Solvent>
export type SolventSlug = keyof typeof SOLVENTS
export const SOLVENT_SLUGS = Object.keys(SOLVENTS) as SolventSlug[]

/** Litres of one mole of a gas at 25 °C and 1013 hPa. */
const MOLAR_L = 24.45
/** @returns mg/m³ of a vapour at so many parts per million, 25 °C and 1013 hPa */
export const mgPerM3 = (ppm: number, molar_g: number): number => (ppm * molar_g) / MOLAR_L
export const limitOf = ({ limit, molar_g }: Solvent): number =>
  'ppm' in limit ? mgPerM3(limit.ppm, molar_g) : limit.mg_m3
/** The lower explosive limit, mg/m³. */
export const explosiveOf = ({ lel_pct, molar_g }: Solvent): number => mgPerM3(lel_pct * 10_000, molar_g)

export type Mixture = Partial<Record<SolventSlug, number>>
const THINNER: Mixture = { 'toluene': 0.3, 'butyl-acetate': 0.4, 'acetone': 0.3 }
/** What evaporates, by share, where no data sheet says it: by product class, else by base. From memory. */
const BY_CLASS: Readonly<Record<string, Mixture>> = {
  'lacquer-thinner': THINNER,
  'urethane-2c': { 'butyl-acetate': 0.7, 'xylene': 0.3 },
  'paste-wax': { 'white-spirit': 0.8, 'turpentine': 0.2 },
  'methylene-chloride-stripper': { 'methylene-chloride': 1 },
  'solvent-gel-stripper': { turpentine: 1 },
}
const BY_BASE: Readonly<Record<string, Mixture>> = {
  oil: { 'white-spirit': 1 },
  alcohol: { ethanol: 1 },
  lacquer: THINNER,
}
/** Shares sum to one; none: no solvent with a limit is known of it. */
export const mixtureOf = ({ slug, base }: { slug: string; base: string }): Mixture =>
  BY_CLASS[slug] ?? BY_BASE[base] ?? {}

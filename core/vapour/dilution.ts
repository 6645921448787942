/**
 * How much air dilutes the vapour of work: mass balance Q = K·G/C (ACGIH, Industrial Ventilation, general dilution),
 * for the exposure limit and for a quarter of the lower explosive limit (practice of NFPA 86 and OSHA). From memory.
 */
import { sumOf } from '../units'
import { explosiveOf, limitOf, type Mixture, type Solvent, SOLVENTS, type SolventSlug } from './solvents'

/** For air that mixes badly: 3 where it comes and goes well, 10 where it stands. */
export const K = { well: 3, usual: 6, badly: 10 } as const
export type Mixing = keyof typeof K
/** How long what was laid gives off most of its solvent after the hands have left it, minutes. From memory. */
export const FLASH_MIN = 30
const LEAST_SHARE_OF_LEL = 0.25

/** What one piece of work gives off. */
export interface Source {
  /** g over the whole time */
  mass_g: number
  minutes: number
  mixture: Mixture
  /** cartridges do not hold it: isocyanates; methylene chloride (29 CFR 1910.1052, supplied air), from memory */
  passesCartridges?: boolean
}
type Row = readonly [SolventSlug, number]
const solventsIn = (mixture: Mixture): Row[] => Object.entries(mixture) as unknown as Row[]
/** mg/s of each solvent, of all sources together. */
function rates(sources: readonly Source[]): Map<SolventSlug, number> {
  const sums = new Map<SolventSlug, number>()
  for (const { mass_g, minutes, mixture } of sources)
    for (const [slug, share] of solventsIn(mixture))
      sums.set(slug, (sums.get(slug) ?? 0) + (mass_g * 1000 * share) / (Math.max(1, minutes) * 60))
  return sums
}
export interface Dilution {
  /** m³/h that keeps all of it below the exposure limits: Σ C/L ≤ 1 */
  exposure_m3_h: number
  /** m³/h that keeps it below a quarter of the lower explosive limit */
  explosive_m3_h: number
  /** mg/s in all */
  rate_mg_s: number
  passesCartridges: boolean
}
const limitIn = (slug: SolventSlug, own: Partial<Record<SolventSlug, number>>) =>
  own[slug] ?? limitOf(SOLVENTS[slug] as Solvent)
/**
 * The air that is wanted while all sources give off together.
 * @param own limits of the shop's own, mg/m³
 */
export function dilution(
  sources: readonly Source[],
  mixing: Mixing,
  own: Partial<Record<SolventSlug, number>> = {},
): Dilution {
  const all = [...rates(sources)]
  const wanted = (limit: (slug: SolventSlug) => number) => K[mixing] * sumOf(all, ([slug, g]) => g / limit(slug)) * 3600
  return {
    exposure_m3_h: wanted(slug => limitIn(slug, own)),
    explosive_m3_h: wanted(slug => LEAST_SHARE_OF_LEL * explosiveOf(SOLVENTS[slug] as Solvent)),
    rate_mg_s: sumOf(all, ([, g]) => g),
    passesCartridges: sources.some(x => x.passesCartridges),
  }
}

export type AirVerdict = 'fine' | 'mask' | 'supplied' | 'never' | 'unknown'
export interface RoomAir {
  volume_m3: number | null
  airChanges_h: number | null
}
/** m³/h that a room gives; null: nobody has said it. */
export const supplyOf = ({ volume_m3, airChanges_h }: RoomAir): number | null =>
  volume_m3 === null || airChanges_h === null ? null : volume_m3 * airChanges_h
/**
 * fine: enough air for lungs · mask: only behind cartridges, and open more · supplied: cartridges do not hold it ·
 * never: it nears what burns, and no mask helps · unknown: nobody has said how much air the room has.
 */
export function airVerdict(wanted: Dilution, supply_m3_h: number | null): AirVerdict {
  if (wanted.rate_mg_s === 0) return 'fine'
  if (supply_m3_h === null) return 'unknown'
  if (supply_m3_h < wanted.explosive_m3_h) return 'never'
  if (supply_m3_h >= wanted.exposure_m3_h) return 'fine'
  return wanted.passesCartridges ? 'supplied' : 'mask'
}

const ENDS = 'Label, data sheet, local codes and licensed practice come first.'
/** What is to be done then (common practice). */
export const THEN: Readonly<Record<'mask' | 'supplied' | 'never', string>> = {
  mask: `Open more, do less at once, or cartridges in date. ${ENDS}`,
  supplied: `No cartridge holds it: supplied air by licensed people, or not here. ${ENDS}`,
  never:
    'No mask helps: open more and say the air changes that were measured under Shop, do less at once, or take it to ' +
    `a booth or outdoors. No flame, heater or plain fan motor near it. ${ENDS}`,
}
/** Does what it gives off burn? */
export const burns = ({ mixture }: Pick<Source, 'mixture'>): boolean => solventsIn(mixture).length > 0
/** Asked before the first can of a day is opened. */
export const askForFire = (room: string): string =>
  `${room}: nobody has looked for flame, pilot light, heater and plain fan motor today. Look before the can opens.`

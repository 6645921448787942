/** How much is needed. Areas in m², films in µm, amounts in ml and g. */
import { dryFilm_um, type Material } from '../materials'
import { sumOf } from '../units'

/** Waste on top of what stays on the piece (common practice). */
export const WASTE = 0.1
/** First coat on bare soft wood takes up to twice as much; planned in the middle (common practice). */
export const SOFT_BARE_FACTOR = 1.5

/** Dry film in the unit of the wet film: wet × volume solids (arithmetic). */
export const dryFilm = (wet: number, volumeSolids: number): number => wet * volumeSolids

/**
 * Coats that build a wanted dry film, at least one: film ÷ dry film of one coat, rounded up (arithmetic).
 * @throws RangeError for what leaves no film.
 */
export function coatsForFilm(material: Material, film_um: number): number {
  const each = dryFilm_um(material)
  if (each === 0) throw new RangeError(`${material.name} leaves no film to build.`)
  return Math.max(1, Math.ceil(film_um / each - 1e-9))
}

/** Area in m² that `volume_ml` covers at a wet film of `wet_um`: 1 L spreads 10 m² at 100 µm (definition). */
export const spread_m2 = (volume_ml: number, wet_um: number): number => volume_ml / wet_um

/**
 * What one coat takes out of the can, ml: area × wet film ÷ transfer × (1 + waste), or by g/m² where it is no film.
 * @throws RangeError for an area that is not above zero.
 */
export function need_ml(input: {
  material: Material
  area_m2: number
  coat: number
  bareSoft?: boolean
  transfer?: number
}): number {
  const { material: m, area_m2, coat, bareSoft = false, transfer = m.transfer } = input
  if (!(area_m2 > 0)) throw new RangeError('An amount needs an area above zero.')
  const soft = bareSoft && coat === 1 ? SOFT_BARE_FACTOR : 1
  const on_ml = m.wet_um !== null ? area_m2 * m.wet_um : (area_m2 * m.spread_g_m2![coat === 1 ? 0 : 1]) / m.density
  return (on_ml * soft * (1 + WASTE)) / transfer
}

/** What several coats take, ml, the first one on bare wood where `bareSoft`. @throws RangeError as `need_ml`. */
export const coats_ml = ({
  coats,
  ...input
}: Omit<Parameters<typeof need_ml>[0], 'coat'> & { coats: number }): number =>
  sumOf(
    Array.from({ length: coats }, (_, i) => i + 1),
    coat => need_ml({ ...input, coat }),
  )

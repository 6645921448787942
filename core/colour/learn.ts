/**
 * What bands of known strength teach about a shop's colourants: their spectra refitted by non-negative least squares,
 * wavelength by wavelength.
 */
import { labOf } from './cielab'
import { deltaE00 } from './difference'
import { absorption } from './kubelka'
import { viewingOf } from './lights'
import { nonNegative } from './nnls'
import {
  type Colourant,
  colouredInner,
  innerOf,
  readOf,
  type Share,
  strengthOf,
  strengthsOf,
  type Surface,
  type Wipe,
} from './predict'
import { BANDS, clampFactor, type Spectrum } from './spectrum'

/** A band that was read: on which wood, with how much of which colourant, through which surface. */
export interface Band {
  id: number
  /** inner reflectance of the bare wood below it */
  inner: Spectrum
  shares: readonly Share[]
  coats: number
  wipe: Wipe
  surface: Surface
  read: Spectrum
}
export interface BandFit {
  id: number
  before: number
  after: number
  outlier: boolean
}
export interface Learnt {
  colourants: Colourant[]
  /** ΔE00 (D65, 10°) of each band, predicted with the spectra before and after */
  bands: BandFit[]
  before: number
  after: number
}

/**
 * How far the spectra on record are believed: as much as so many bands of middling strength. Shop default, unsourced.
 */
export const PRIOR_BANDS = 0.25
/**
 * A band is pointed at when it is this many times off the middle one, and seen by a trained eye. Shop default,
 * unsourced.
 */
const OUTLIER_TIMES = 3
const OUTLIER_FROM = 2

const daylight = viewingOf('d65')
const strengths = (colourants: readonly Colourant[], band: Band) =>
  strengthsOf(colourants, band.shares, band.coats, band.wipe)

/** ΔE00 between what these spectra predict for a band and what was read. */
export const bandError = (colourants: readonly Colourant[], band: Band): number =>
  deltaE00(
    labOf(band.read, daylight),
    labOf(readOf(colouredInner(band.inner, colourants, strengths(colourants, band)), band.surface), daylight),
  )

const middle = (values: readonly number[]) => {
  const s = [...values].sort((a, b) => a - b)
  return s.length % 2 ? s[(s.length - 1) / 2]! : (s[s.length / 2 - 1]! + s[s.length / 2]!) / 2
}
const rms = (values: readonly number[]) => Math.sqrt(values.reduce((s, v) => s + v * v, 0) / values.length)

/**
 * What a band says of the colourants at one wavelength: added K/S, or added absorbance, and how exactly it is known
 * there.
 */
function equation(band: Band, lies: Colourant['lies'], seen: Spectrum, i: number): { added: number; weight: number } {
  const r = clampFactor(seen[i]!)
  const r0 = clampFactor(band.inner[i]!)
  if (lies === 'film') return { added: Math.log(r0 / r) / 2, weight: r }
  const slope = (1 - r * r) / (2 * r * r)
  return { added: (1 - r) ** 2 / (2 * r) - (1 - r0) ** 2 / (2 * r0), weight: 1 / (slope + 0.5) }
}

/** Strength of the belief that a colourant is as strong as on record, against one band. Shop default, unsourced. */
const SCALE_BANDS = 0.05

/**
 * First how strong each colourant is as a whole (a scale tells much from few bands), then its spectrum around that,
 * wavelength by wavelength.
 */
function refit(colourants: readonly Colourant[], used: readonly Band[]): Colourant[] {
  const lies = colourants[0]!.lies
  const seen = used.map(b => innerOf(b.read, b.surface))
  const c = used.map(b => strengths(colourants, b))
  const equations = used.map((band, b) => Array.from({ length: BANDS }, (_, i) => equation(band, lies, seen[b]!, i)))
  const rows = equations.flatMap((es, b) =>
    es.map((e, i) => ({ x: colourants.map((k, j) => c[b]![j]! * k.k[i]! * e.weight), y: e.added * e.weight })),
  )
  const size = colourants.map((_, j) => Math.sqrt(rows.reduce((sum, r) => sum + r.x[j]! ** 2, 0) / used.length) || 1)
  const beliefs = colourants.map((_, j) => ({
    x: colourants.map((_, k) => (k === j ? size[j]! * Math.sqrt(SCALE_BANDS) : 0)),
    y: size[j]! * Math.sqrt(SCALE_BANDS),
  }))
  const scale = nonNegative(
    [...rows, ...beliefs].map(r => r.x),
    [...rows, ...beliefs].map(r => r.y),
  )
  const usual = colourants.map((_, j) => Math.sqrt(c.reduce((sum, row) => sum + row[j]! ** 2, 0) / used.length) || 1)
  const fitted = Array.from({ length: BANDS }, (_, i) => {
    const weight = equations.reduce((sum, es) => sum + es[i]!.weight / used.length, 0) * Math.sqrt(PRIOR_BANDS)
    return nonNegative(
      [
        ...c.map((row, b) => row.map(v => v * equations[b]![i]!.weight)),
        ...colourants.map((_, j) => colourants.map((_, k) => (k === j ? usual[j]! * weight : 0))),
      ],
      [
        ...equations.map(es => es[i]!.added * es[i]!.weight),
        ...colourants.map((k, j) => k.k[i]! * scale[j]! * usual[j]! * weight),
      ],
    )
  })
  return colourants.map((colourant, j) => ({ ...colourant, k: fitted.map(x => x[j]!) }))
}

/**
 * Refits the spectra of `colourants` (all in the wood, or all in the film) from bands, at least one. The spectra on
 * record stay in with a small weight, so that a wavelength that no band speaks of keeps its value. Bands named in
 * `without` are left out of the fit and still judged. A band is pointed at when the others, learnt without it, do not
 * foretell it.
 * @throws RangeError without a band to learn from, or where wood and film are asked at once.
 */
export function learn(
  colourants: readonly Colourant[],
  bands: readonly Band[],
  without: readonly number[] = [],
): Learnt {
  const used = bands.filter(b => !without.includes(b.id))
  if (colourants.length === 0 || used.length === 0)
    throw new RangeError('There is no band to learn from. Read a band of known strength first.')
  if (colourants.some(c => c.lies !== colourants[0]!.lies))
    throw new RangeError('Colour in the wood and colour in the film are learnt one after the other.')
  const after = refit(colourants, used)
  const foretold = bands.map(b =>
    bandError(
      used.length > 1 && used.includes(b)
        ? refit(
            colourants,
            used.filter(o => o !== b),
          )
        : after,
      b,
    ),
  )
  const errors = bands.map(b => ({ id: b.id, before: bandError(colourants, b), after: bandError(after, b) }))
  const usual = middle(foretold)
  return {
    colourants: after,
    before: rms(errors.map(e => e.before)),
    after: rms(errors.map(e => e.after)),
    bands: errors.map((e, i) => ({
      ...e,
      outlier: foretold[i]! > OUTLIER_FROM && foretold[i]! > OUTLIER_TIMES * usual,
    })),
  }
}

/**
 * A colourant's spectrum from one band alone: what it added, divided by its strength. Negative values are noise and
 * become nought.
 */
export function colourantFromBand(band: Band, lies: Colourant['lies'], pct: number): Spectrum {
  const strength = strengthOf(pct, band.coats, lies === 'wood' ? band.wipe : 'none')
  if (!(strength > 0)) throw new RangeError('A band teaches a colourant only where its strength is above nought.')
  const seen = innerOf(band.read, band.surface)
  const base = absorption(band.inner)
  return absorption(seen).map(
    (ks, i) =>
      Math.max(0, lies === 'wood' ? ks - base[i]! : Math.log(clampFactor(band.inner[i]!) / clampFactor(seen[i]!)) / 2) /
      strength,
  )
}

import { usualContext } from '#core/context'
import { P } from '#core/abrasives'
import { describe, expect, it } from 'vitest'
import { actOf, cautionsOfStep, METHODS, STEP_KINDS, stepOf } from '#core/acts'
import { MATERIALS } from '#core/materials'
import type { Caution } from '#core/safety'
import { facts } from '../facts'

/**
 * What of §15 and §5 of the handbook goes with what, written from its sentences and not from the code. Where the
 * handbook names no act, the row says how it was read. Sources there: NFPA 1, OSHA 1910.106, ACGIH, EPA 40 CFR 751,
 * from memory; the rest common practice.
 */
const WITH_PRODUCT: readonly [says: string, caution: Caution, classes: readonly string[]][] = [
  ['"Solvents: ventilation": every class that is not thinned with water', 'solvent', solventClasses()],
  ['"Oily rags: fire": drying oils, and rags with oil-based products', 'oily-rags', oilClasses()],
  ['"Two-part urethane: isocyanates"', 'isocyanate', ['urethane-2c']],
  ['"Hardeners of two-part hardwax oils may hold isocyanates"', 'hardener', ['hardwax-oil-2c']],
  ['"Bleach: gloves, goggles, never closed"', 'bleach', ['two-part-bleach', 'oxalic-acid', 'household-chlorine']],
  ['"Ammonia fumes"', 'ammonia', ['ammonia']],
  ['§5 "Methylene chloride … kills people in closed rooms"', 'methylene-chloride', ['methylene-chloride-stripper']],
]
function solventClasses() {
  const water = [
    'waterborne-polyurethane',
    'opaque-colour',
    'water-dye',
    'water-stain',
    'paint-wash',
    'water-conditioner',
  ]
  const alsoWater = [
    'household-chlorine',
    'two-part-bleach',
    'oxalic-acid',
    'ammonia',
    'waterborne-filler',
    'mild-soap',
  ]
  return MATERIALS.map(m => m.slug).filter(slug => ![...water, ...alsoWater].includes(slug))
}
function oilClasses() {
  const films = ['oil-polyurethane', 'wiping-varnish', 'resin-oil-varnish', 'varnish-oil', 'hardwax-oil-2c']
  const oils = ['raw-linseed', 'boiled-linseed', 'gel-stain', 'pigment-stain', 'exterior-stain', 'glaze']
  return [...films, ...oils, 'oil-conditioner', 'metal-primer', 'paste-filler', 'paste-wax', 'white-spirit', 'naphtha']
}
/** Acts that abrade: "Dust: extraction, mask" unless they are done wet. */
const ABRADE = ['scuff', 'roughen', 'level', 'sand', 'sand-off', 'sand-back', 'sand-coat', 'pad', 'rub-out', 'derust']
/** Acts that take old finish or bare wood away: "Old paint: lead"; wiping and coating take nothing away. */
const TAKE_AWAY = [
  'roughen',
  'strip',
  'scrape',
  'wash-off',
  'scuff',
  'level',
  'sand',
  'sand-off',
  'pad',
  'pare',
  'derust',
]
/** §5 "Sludge and rags are hazardous waste": stripper, what is scraped off, and the rags of the wash after it. */
const SLUDGE = ['strip', 'scrape', 'wash-off']
/** "Noise: ear protection": machines. */
const LOUD = ['random-orbit', 'belt', 'finishing-sander']

/** "No ignition: … a space heater, a pilot light, an ordinary fan motor", and dust settles: where both share a room. */
function wanted(kind: string, method: string, product: string | null, lead: boolean, shared: boolean): Caution[] {
  const by = (caution: Caution, when: boolean): Caution[] => (when ? [caution] : [])
  return [
    ...by('lead', lead && TAKE_AWAY.includes(kind)),
    ...SLUDGE.filter(k => k === kind).flatMap((): Caution[] => ['sludge', 'skin']),
    ...WITH_PRODUCT.flatMap(([, caution, classes]) => by(caution, product !== null && classes.includes(product))),
    ...by('oily-rags', kind === 'oil-off'),
    ...by('spray', method === 'spray'),
    ...by('dust', ABRADE.includes(kind) && method !== 'wet'),
    ...by('noise', LOUD.includes(method) && NOISY.includes(kind)),
    ...by(
      'one-room',
      shared && (solventClasses().includes(product ?? '') || (ABRADE.includes(kind) && method !== 'wet')),
    ),
  ]
}
/** Abrasion that is done by machine somewhere in the handbook (§6, §17.2). */
const NOISY = ['buff', 'scuff', 'roughen', 'sand', 'sand-off', 'sand-back', 'sand-coat']

describe('cautions, against the handbook', () => {
  it.each(STEP_KINDS)('%s: every method, product, lead answer and room', kind => {
    const roles = actOf({ kind }).needs?.roles ?? []
    const products = [null, ...MATERIALS.filter(m => roles.includes(m.role)).map(m => m.slug)]
    for (const product of products)
      for (const method of METHODS)
        for (const lead of ['yes', 'unknown', 'no'] as const)
          for (const shared of [false, true]) {
            const step = stepOf({ key: 'x', kind, faces: [1], product, method, grits: [P(180)] })
            const found = cautionsOfStep(step, usualContext(facts({ lead })), { shared })
            const says = `${kind}, ${method}, ${product}, lead ${lead}, one room ${shared}`
            const asked = wanted(kind, method, product, lead !== 'no', shared)
            expect([...found].sort(), says).toEqual([...new Set(asked)].sort())
          }
  })
})

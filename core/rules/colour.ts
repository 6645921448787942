/** Rules of colour: conditioner, stain, dye, gel, toner, paint wash. */
import { does, firstAfter, isBare, lastBefore, type Visit } from '../acts'
import {
  abrades,
  type Breach,
  COMMON,
  covers,
  DAY_MIN,
  each,
  films,
  gap_min,
  hours,
  lastInWood,
  leastElapsed_min,
  type RuleContext,
  type Rule,
  tooSoon,
  unfit,
} from './rule'

const OIL_COLOUR = ['stain', 'gel', 'conditioner']

/** Oil colour under a first film, drying for less than a day by the plan. */
const wetColourUnder = (c: RuleContext, covers: (v: Visit) => boolean): Breach[] =>
  each(c, v => {
    const colour = v.before.inWood.findLast(w => OIL_COLOUR.includes(w.role))
    if (!covers(v) || !colour || colour.base !== 'oil' || v.before.films.some(f => f.step && f.slug !== 'gel-stain'))
      return null
    const least = gap_min(c, colour.step, v.step.key)
    return least < DAY_MIN
      ? tooSoon(
          colour.step,
          DAY_MIN,
          `only ${Math.round(least / 60)} h between the oil colour and this coat; 24 h at least, 48 to 72 h ` +
            'cool or damp',
        )
      : null
  })
const coatOf = (base: string) => (v: Visit) => films(v) && v.product?.base === base

export const COLOUR_RULES: readonly Rule[] = [
  {
    slug: 'conditioner-base-matches-stain',
    severity: 'stop',
    scope: 'plan',
    source: COMMON,
    reason: 'A conditioner of another base does not even out the stain, it repels it.',
    mend: "Take a conditioner of the stain's base.",
    check: c =>
      each(c, v => {
        const under = v.before.inWood.findLast(w => w.role === 'conditioner')
        return v.step.kind === 'stain' && under && under.base !== v.product!.base
          ? `${under.base}-based conditioner under ${v.product!.base}-based stain`
          : null
      }),
  },
  {
    slug: 'stain-within-2h-of-conditioner',
    severity: 'stop',
    scope: 'plan',
    source: COMMON,
    reason: 'After two hours the conditioner has sealed too far for the stain to go in.',
    mend: 'Put the stain directly after the conditioner, or condition again.',
    check: c =>
      each(c, v => {
        const last = lastInWood(v.before)
        const from = last?.role === 'conditioner' ? last.step : null
        if (v.step.kind !== 'stain' || from === null) return null
        const least = leastElapsed_min(c, from, v.step.key)
        return least > 120 ? `${Math.round(least)} min from conditioner to stain at the least; 120 is the limit` : null
      }),
  },
  {
    slug: 'stain-needs-bare-wood',
    severity: 'stop',
    scope: 'plan',
    source: COMMON,
    reason: 'A penetrating stain does not go through a film or a sealer; it stays on top and smears.',
    mend: 'Strip first, or colour with gel stain, glaze or toner.',
    check: unfit('stain-needs-bare-wood'),
  },
  {
    slug: 'gel-over-film-needs-scuff',
    severity: 'stop',
    scope: 'plan',
    source: COMMON,
    reason: 'Gel stain holds on a film only in its scratches.',
    mend: 'Add a scuff P220 to P320 before the gel.',
    check: unfit('gel-over-film-needs-scuff'),
  },
  {
    slug: 'gel-only-darker',
    severity: 'stop',
    scope: 'plan',
    source: COMMON,
    reason: 'A gel stain hides and darkens; it cannot go lighter than what is under it.',
    mend: 'Strip and bleach, or agree a darker colour with the client.',
    check: c =>
      c.facts.tone === 'lighter' ? each(c, v => (v.step.kind === 'gel' ? 'the client wants it lighter' : null)) : [],
  },
  {
    slug: 'oil-stain-dry-before-waterborne',
    severity: 'stop',
    scope: 'plan',
    source: COMMON,
    reason: 'Waterborne film over damp oil stain peels.',
    mend: 'Lengthen the wait to 24 h (48 to 72 h cool or damp), or put dewaxed shellac on the dry stain.',
    check: c => wetColourUnder(c, coatOf('water')),
  },
  {
    slug: 'oil-stain-dry-before-shellac',
    severity: 'warn',
    scope: 'plan',
    source: COMMON,
    reason: 'Shellac over damp oil stain clouds and lifts.',
    mend: 'Lengthen the wait to 24 h, better 48 h.',
    check: c => wetColourUnder(c, coatOf('alcohol')),
  },
  {
    slug: 'oil-stain-dry-before-lacquer',
    severity: 'stop',
    scope: 'plan',
    source: COMMON,
    reason: 'Lacquer over a damp oil stain lifts it.',
    mend: 'Lengthen the wait to 24 h, longer cool or tacky.',
    check: c => wetColourUnder(c, coatOf('lacquer')),
  },
  {
    slug: 'dark-toner-first',
    severity: 'warn',
    scope: 'plan',
    source: COMMON,
    reason: "A dark band shows no overspray of the light toner; a light field shows the dark one's.",
    mend: 'Dark band or edge first, then the lighter overall toner.',
    check: c =>
      each(c, v =>
        v.step.kind === 'toner' &&
        v.step.fields.shade === 'dark' &&
        lastBefore(v, u => u.step.kind === 'toner' && u.step.fields.shade === 'light')
          ? 'the light toner lies under this dark one'
          : null,
      ),
  },
  {
    slug: 'dye-bleeds-into-same-solvent',
    severity: 'warn',
    scope: 'plan',
    source: COMMON,
    reason: "A brushed coat of the dye's own solvent pulls the colour up.",
    mend: 'Spray the first coat, or seal with the other solvent.',
    check: c =>
      each(c, v => {
        const dye = v.before.inWood.findLast(w => w.role === 'dye')
        return v.step.kind === 'coat' &&
          dye &&
          isBare(v.before) &&
          dye.base === v.product!.base &&
          v.step.method === 'brush'
          ? `${dye.slug.replaceAll('-', ' ')} under a brushed ${v.product!.base} coat`
          : null
      }),
  },
  {
    slug: 'water-stain-dry-before-oil-film',
    severity: 'stop',
    scope: 'plan',
    source: COMMON,
    reason: 'Oil over damp water colour turns cloudy and lets go.',
    mend: 'Let it dry overnight.',
    check: c =>
      each(c, v => {
        const dye = v.before.inWood.findLast(w => ['dye', 'paint-wash'].includes(w.role) && w.base === 'water')
        if (!dye || !isBare(v.before) || !does(v.step, 'finishes') || v.product?.base !== 'oil') return null
        const least = gap_min(c, dye.step, v.step.key)
        return least < DAY_MIN / 2
          ? tooSoon(dye.step, DAY_MIN / 2, `only ${hours(least)} since the water colour`)
          : null
      }),
  },
  {
    slug: 'exterior-stain-indoors',
    severity: 'warn',
    scope: 'plan',
    source: COMMON,
    reason: 'It may hold water repellents that topcoats do not hold on.',
    mend: 'An adhesion test first, or an interior stain.',
    check: c =>
      c.facts.use === 'outdoors'
        ? []
        : each(c, v =>
            v.product?.traits.includes('exterior')
              ? { says: 'an exterior stain', severity: c.facts.rustic ? 'note' : 'warn' }
              : null,
          ),
  },
  {
    slug: 'no-abrasion-on-colour',
    severity: 'stop',
    scope: 'plan',
    source: COMMON,
    reason: 'Dye, gel, toner and tinted coats are cut through at once.',
    mend: 'A clear coat over the last coloured one first; sand that.',
    check: c =>
      each(c, v =>
        abrades(v) && v.step.kind !== 'sand-back' && v.before.openColour !== null
          ? 'colour lies open under the paper'
          : null,
      ),
  },
  {
    slug: 'paint-wash-sealed',
    severity: 'warn',
    scope: 'plan',
    source: COMMON,
    reason: 'A paint wash rubs off until it is sealed.',
    mend: 'A clear coat over it.',
    check: c =>
      each(c, v =>
        v.step.kind === 'paint-wash' && !firstAfter(v, u => u.step.kind === 'coat') ? 'nothing seals the wash' : null,
      ),
  },
  {
    slug: 'yellowing-over-pale',
    severity: 'warn',
    scope: 'plan',
    source: COMMON,
    reason: 'An ambering topcoat takes back what bleaching or pickling gave.',
    mend: 'A water-clear topcoat that does not yellow.',
    check: c =>
      each(c, v =>
        v.before.pale && does(v.step, 'finishes') && v.product?.traits.includes('yellows')
          ? `${v.product!.name} ambers over pale wood`
          : null,
      ),
  },
  {
    slug: 'sample-under-finish',
    severity: 'warn',
    scope: 'plan',
    source: COMMON,
    reason: 'Colour without its topcoat is another colour.',
    mend: 'Approve it on a step panel under finish.',
    check: c =>
      c.facts.sample !== 'bare'
        ? []
        : each(c, v =>
            covers(v) && does(v.step, 'colours') ? 'its colour was approved on a sample without topcoat' : null,
          ),
  },
]

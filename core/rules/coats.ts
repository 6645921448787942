/** Rules of sealers and topcoats: what may lie on what. */
import { gritName, isCoarser, P } from '../abrasives'
import { isBare, type Visit } from '../acts'
import { breach, COMMON, covers, DAY_MIN, each, films, gap_min, hours, type Rule, tooSoon, top, unfit } from './rule'

const OIL_FILMS = ['oil-varnish', 'oil-polyurethane', 'oil-paint', 'wiping-varnish', 'resin-oil-varnish']
const SHELLACS = ['shellac', 'dewaxed-shellac', 'shellac-brushed']
const words = (slug: string) => slug.replaceAll('-', ' ')
const isFilm = (v: Visit) => v.step.kind === 'coat'

export const COAT_RULES: readonly Rule[] = [
  {
    slug: 'isocyanates-need-licence',
    severity: 'forbidden',
    scope: 'plan',
    source: COMMON,
    reason: 'Two-part urethane holds isocyanates: supplied air, licensed sprayers only, never in an ordinary room.',
    mend: 'Another finish, or record the licence under Shop.',
    check: c =>
      c.licences.includes('isocyanates')
        ? []
        : each(c, v => (v.product?.traits.includes('catalysed') ? `${v.product!.name} without a licence` : null)),
  },
  {
    slug: 'waxy-shellac-under-film',
    severity: 'stop',
    scope: 'plan',
    source: COMMON,
    reason:
      'Polyurethane and waterborne films do not hold on the wax in shellac; many makers of two-part ' +
      'finishes refuse shellac altogether.',
    mend: "Under a two-part finish vinyl or the maker's own sealer; under others vinyl or dewaxed shellac.",
    check: c =>
      c.visits.flatMap(v => {
        const under = top(v.before)
        const m = v.product
        if (!isFilm(v) || !under || !m) return []
        if (under.slug === 'shellac-brushed' && (m.base === 'water' || m.slug === 'oil-polyurethane'))
          return [breach(v.step, `shellac with its wax under ${m.name}`)]
        return SHELLACS.includes(under.slug) && m.traits.includes('catalysed')
          ? [breach(v.step, `${words(under.slug)} under a two-part finish`, 'warn')]
          : []
      }),
  },
  {
    slug: 'wax-under-anything',
    severity: 'stop',
    scope: 'plan',
    source: COMMON,
    reason: 'Nothing holds on wax.',
    mend: 'Take the wax off with white spirit first.',
    check: c =>
      each(c, v => (covers(v) && v.step.kind !== 'wax' && v.before.waxed ? 'wax lies under this step' : null)),
  },
  {
    slug: 'hot-solvent-over-oil-film',
    severity: 'stop',
    scope: 'plan',
    source: COMMON,
    reason: 'Lacquer solvent wrinkles oil varnish, polyurethane and paint.',
    mend: 'A barrier of dewaxed shellac, or another finish.',
    check: c =>
      each(c, v =>
        films(v) && v.product!.base === 'lacquer' && top(v.before) && OIL_FILMS.includes(top(v.before)!.slug)
          ? `lacquer over ${words(top(v.before)!.slug)}`
          : null,
      ),
  },
  {
    slug: 'water-over-uncured-oil',
    severity: 'stop',
    scope: 'plan',
    source: COMMON,
    reason: 'Water on an oil film that is not cured crawls and peels.',
    mend: 'Let the oil cure, or put dewaxed shellac between.',
    check: c =>
      each(c, v => {
        const under = top(v.before)
        if (!isFilm(v) || v.product!.base !== 'water') return null
        const oilInWood = v.before.inWood.findLast(w => w.role === 'oil')?.step ?? null
        const oilFilm = under?.base === 'oil' && under.slug !== 'gel-stain' ? under.step : null
        const oil = under ? oilFilm : oilInWood
        if (!oil) return null
        const least = gap_min(c, oil, v.step.key)
        return least < 7 * DAY_MIN ? tooSoon(oil, 7 * DAY_MIN, `only ${hours(least)} since the oil`) : null
      }),
  },
  {
    slug: 'stearate-sealer-under-catalysed',
    severity: 'warn',
    scope: 'plan',
    source: COMMON,
    reason: 'The soap in a sanding sealer keeps two-part films and polyurethane from holding.',
    mend: "Vinyl sealer or the maker's own.",
    check: c =>
      each(c, v =>
        isFilm(v) &&
        top(v.before)?.slug === 'lacquer-sanding-sealer' &&
        (v.product!.traits.includes('catalysed') || /polyurethane/.test(v.product!.slug))
          ? `sanding sealer under ${v.product!.name}`
          : null,
      ),
  },
  {
    slug: 'hardwax-needs-open-wood',
    severity: 'stop',
    scope: 'plan',
    source: COMMON,
    reason: 'Hardwax oil holds on fibres: bare wood, P150 to P180, one coat, no film over it.',
    mend: 'Strip to bare wood, stop at P150 to P180, one coat, and nothing over it but its own care.',
    check: c =>
      each(c, v => {
        if (v.step.product === 'hardwax-oil-2c' && v.step.kind === 'oil-on') {
          if (!isBare(v.before)) return `${words(top(v.before)!.slug)} closes the wood`
          if (v.before.inWood.some(w => w.slug === 'hardwax-oil-2c')) return 'a second coat finds nothing to hold on'
          if (v.before.grit && (isCoarser(v.before.grit, P(150)) || isCoarser(P(180), v.before.grit)))
            return `the wood is at ${gritName(v.before.grit)}`
        }
        return isFilm(v) && v.before.inWood.some(w => w.slug === 'hardwax-oil-2c') ? 'a film over hardwax oil' : null
      }),
  },
  {
    slug: 'oil-on-sealed-surface',
    severity: 'stop',
    scope: 'plan',
    source: COMMON,
    reason: 'Oil does not go into a sealed surface; it stays sticky.',
    mend: 'Strip to bare wood, or choose a film.',
    check: unfit('oil-on-sealed-surface'),
  },
  {
    slug: 'boiled-linseed-under-shellac',
    severity: 'warn',
    scope: 'plan',
    source: COMMON,
    reason: 'Boiled linseed under shellac bubbles for about 14 days.',
    mend: 'Wait 14 days, or take raw oil, very thin.',
    check: c =>
      each(c, v => {
        const oil = v.before.inWood.findLast(w => w.slug === 'boiled-linseed')
        if (!isFilm(v) || v.product!.base !== 'alcohol' || !oil || !isBare(v.before)) return null
        const least = gap_min(c, oil.step, v.step.key)
        return least < 14 * DAY_MIN ? tooSoon(oil.step, 14 * DAY_MIN, `${hours(least)} since the boiled oil`) : null
      }),
  },
]

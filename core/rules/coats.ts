/** Rules of sealers and topcoats: what may lie on what, and when. */
import { gritName, isCoarser, median_um, P } from '../abrasives'
import { does, isBare, type Visit, wears } from '../acts'
import {
  abrades,
  breach,
  COMMON,
  covers,
  DAY_MIN,
  each,
  films,
  gap_min,
  hours,
  leastElapsed_min,
  product,
  type RuleContext,
  type Rule,
  tooSoon,
  top,
  unfit,
} from './rule'

const OIL_FILMS = ['oil-varnish', 'oil-polyurethane', 'oil-paint', 'wiping-varnish', 'resin-oil-varnish']
const SHELLACS = ['shellac', 'dewaxed-shellac', 'shellac-brushed']
const words = (slug: string) => slug.replaceAll('-', ' ')
const isFilm = (v: Visit) => v.step.kind === 'coat'

/**
 * Reserve of film above the last colour, and the height that levelling takes, µm (common practice, a model to be
 * tuned).
 */
const FILM_RESERVE_UM = 50
const LEVEL_UM = 15

/** Film above the last colour, µm: new layers only; what was found is not measured. */
function clearFilm_um(v: Visit): number {
  const colour = v.before.films.findLastIndex(f => ['lacquer-toner', 'glaze', 'gel-stain'].includes(f.slug))
  return v.before.films
    .slice(colour + 1)
    .filter(f => !f.found)
    .reduce((sum, f) => sum + f.dry_um, 0)
}

const laterFilm = (c: RuleContext, v: Visit) =>
  c.visits.find(u => u.group === v.group && u.index > v.index && u.step.kind === 'coat')

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
        : each(c, v => (product(v)?.traits.includes('catalysed') ? `${product(v)!.name} without a licence` : null)),
  },
  {
    slug: 'waxy-shellac-under-film',
    severity: 'stop',
    scope: 'plan',
    source: COMMON,
    reason:
      'Polyurethane and waterborne films do not hold on the wax in shellac; many makers of two-part ' +
      'finishes refuse shellac altogether.',
    mend: "Dewaxed shellac, vinyl, or the maker's own sealer.",
    check: c =>
      c.visits.flatMap(v => {
        const under = top(v.before)
        const m = product(v)
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
        films(v) && product(v)!.base === 'lacquer' && top(v.before) && OIL_FILMS.includes(top(v.before)!.slug)
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
        if (!isFilm(v) || product(v)!.base !== 'water') return null
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
        (product(v)!.traits.includes('catalysed') || /polyurethane/.test(product(v)!.slug))
          ? `sanding sealer under ${product(v)!.name}`
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
        if (!isFilm(v) || product(v)!.base !== 'alcohol' || !oil || !isBare(v.before)) return null
        const least = gap_min(c, oil.step, v.step.key)
        return least < 14 * DAY_MIN ? tooSoon(oil.step, 14 * DAY_MIN, `${hours(least)} since the boiled oil`) : null
      }),
  },
  {
    slug: 'contamination',
    severity: 'stop',
    scope: 'plan',
    source: COMMON,
    reason: 'Silicone, wax or oil comes back as fish eyes in stain, sealer and topcoat.',
    mend: 'Solvent wash, a wetting test, a gate, and a dewaxed shellac barrier before the topcoat.',
    check: c =>
      each(c, v => {
        if (!covers(v) || v.step.kind === 'wax' || v.before.contamination === 'none') return null
        if (v.before.contamination === 'untreated') return 'water beaded here, and it was not washed with solvent'
        if (!c.visits.some(u => u.group === v.group && u.index < v.index && u.step.kind === 'gate'))
          return 'no wetting test between the solvent wash and this step'
        const film = product(v)!.role === 'film'
        return film && v.before.contamination !== 'barred' && v.step.product !== 'dewaxed-shellac'
          ? 'no dewaxed shellac barrier under this coat'
          : null
      }),
  },
  {
    slug: 'clean-before-abrade',
    severity: 'stop',
    scope: 'plan',
    source: COMMON,
    reason: 'Abrasion drives grease, wax and polish into the surface.',
    mend: 'Add a wash with mild soap, then white spirit, before it.',
    check: c => each(c, v => (abrades(v) && v.before.dirty ? 'the surface has not been washed' : null)),
  },
  {
    slug: 'recoat-window-passed',
    severity: 'stop',
    scope: 'plan',
    source: COMMON,
    reason: 'After its window a coat finds nothing to hold on, unless it melts in.',
    mend: 'Scuff before this coat.',
    check: c =>
      c.waits.flatMap(w => {
        const to = c.steps.find(s => s.key === w.to)!
        if (w.kind !== 'recoat' || w.max === null || to.kind !== 'coat') return []
        const least = leastElapsed_min(c, w.from, w.to)
        return least > w.max
          ? [
              breach(
                to,
                `${Math.round(least / 60)} h at the least since the coat before; its window closes after ` +
                  `${w.max / 60} h`,
              ),
            ]
          : []
      }),
  },
  {
    slug: 'rub-out-after-cure',
    severity: 'stop',
    scope: 'plan',
    source: COMMON,
    reason: 'A film rubbed too early shrinks and shows scratches.',
    mend: 'Wait until it is cured.',
    check: c =>
      each(c, v => {
        const under = top(v.before)
        const cure = under?.step ? c.steps.find(s => s.key === under.step)! : null
        if (v.step.kind !== 'rub-out' || !cure) return null
        const [least] = product({ ...v, step: cure })!.cure_d
        const gap = gap_min(c, cure.key, v.step.key)
        return gap < least * DAY_MIN
          ? tooSoon(cure.key, least * DAY_MIN, `${hours(gap)} since the last coat; ${least} days at the least`)
          : null
      }),
  },
  {
    slug: 'rubbing-satin-changes-sheen',
    severity: 'note',
    scope: 'plan',
    source: COMMON,
    reason: 'A satin film that is rubbed turns glossier or duller.',
    mend: 'Rub gloss to the sheen, or leave satin alone.',
    check: c =>
      c.facts.sheen === 'gloss'
        ? []
        : each(c, v => (v.step.kind === 'rub-out' ? `the client wants ${c.facts.sheen}` : null)),
  },
  {
    slug: 'tape-on-fresh-film',
    severity: 'warn',
    scope: 'plan',
    source: COMMON,
    reason: 'Tape prints on film younger than a day; lacquer solvent loosens its glue at any age.',
    mend: 'Paper over the face, tape on the rim only, lifted soon.',
    check: c =>
      each(c, v => {
        const under = top(v.before)
        return v.step.kind === 'mask' && under?.step && gap_min(c, under.step, v.step.key) < DAY_MIN
          ? tooSoon(under.step, DAY_MIN, 'the film under the tape is younger than a day')
          : null
      }),
  },
  {
    slug: 'shake-and-bubbles',
    severity: 'note',
    scope: 'plan',
    source: COMMON,
    reason: 'Shaken finish carries bubbles into the film.',
    mend: 'Stir what is brushed or wiped; shake only aerosols.',
    check: c => each(c, v => (v.step.fields.shaken && v.step.method !== 'spray' ? 'this is brushed or wiped' : null)),
  },
  {
    slug: 'insides-too',
    severity: 'note',
    scope: 'plan',
    source: COMMON,
    reason: 'A panel finished on one side takes water on the other and cups.',
    mend: 'A coat on the inside as well.',
    check: c =>
      each(c, v =>
        isFilm(v) &&
        !laterFilm(c, v) &&
        v.group.substrate === 'solid' &&
        v.group.faces.some(
          f =>
            /door|panel|lid|leaf|flap/i.test(f.part) &&
            f.shape === 'flat' &&
            !c.facts.faces.some(o => o.part === f.part && o.id !== f.id && /inside|under|back/i.test(o.name)),
        )
          ? 'only one side of a panel is in the plan'
          : null,
      ),
  },
  {
    slug: 'wet-sand-needs-sealed-wood',
    severity: 'stop',
    scope: 'plan',
    source: COMMON,
    reason: 'Water that reaches wood raises and stains it.',
    mend: 'Two sealing coats on every face, end and screw hole first.',
    check: c =>
      each(c, v =>
        does(v.step, 'smooths') &&
        v.step.method === 'wet' &&
        v.before.films.length < 2 &&
        !v.before.films.some(f => f.found)
          ? `${v.before.films.length === 0 ? 'bare wood' : 'one coat'} under the water`
          : null,
      ),
  },
  {
    slug: 'film-budget',
    severity: 'stop',
    scope: 'plan',
    source: `${COMMON}, a model to be tuned`,
    reason: 'Rubbing takes film; less than about 50 µm left above the colour cuts through.',
    mend: 'More coats first: about six of gloss under a rub from P320.',
    check: c =>
      each(c, v => {
        if (v.step.kind !== 'rub-out' || v.before.films.every(f => f.found)) return null
        const film = clearFilm_um(v)
        const takes = LEVEL_UM + Math.max(...v.step.grits.map(g => median_um(g) / 2), 0)
        return film - takes < FILM_RESERVE_UM
          ? `${Math.round(film)} µm above the colour less ${Math.round(takes)} leaves ` +
              `${Math.round(film - takes)}; ${FILM_RESERVE_UM} is the reserve`
          : null
      }),
  },
  {
    slug: 'weight-on-fresh-film',
    severity: 'stop',
    scope: 'plan',
    source: COMMON,
    reason: 'A two-part film prints under weight for about a weekend.',
    mend: 'Turning over is a step with its own wait.',
    check: c =>
      each(c, v => {
        const under = top(v.before)
        return v.step.kind === 'finish-up' &&
          under?.slug === 'urethane-2c' &&
          gap_min(c, under.step, v.step.key) < 2 * DAY_MIN
          ? tooSoon(under.step, 2 * DAY_MIN, 'the piece is put together on a film of less than two days')
          : null
      }),
  },
  {
    slug: 'cleaner-attacks-film',
    severity: 'stop',
    scope: 'plan',
    source: COMMON,
    reason: 'The wipe must not dissolve the layer that it cleans.',
    mend: 'White spirit or naphtha on shellac and lacquer; thinner for stripping only.',
    check: c =>
      each(c, v => {
        const under = top(v.before)?.slug
        if (!under || !does(v.step, 'cleans') || wears(v.step)) return null
        if (v.step.product === 'alcohol' && SHELLACS.includes(under)) return 'alcohol on shellac'
        return v.step.product === 'lacquer-thinner' && (SHELLACS.includes(under) || /lacquer|sealer/.test(under))
          ? `thinner on ${words(under)}`
          : null
      }),
  },
  {
    slug: 'resin-tack-cloth-before-waterborne',
    severity: 'warn',
    scope: 'plan',
    source: COMMON,
    reason: 'Its resin fish-eyes under waterborne films.',
    mend: 'A barely damp lint-free cloth instead.',
    check: c =>
      each(c, v => {
        const before = c.visits.findLast(u => u.group === v.group && u.index < v.index)
        return isFilm(v) && product(v)!.base === 'water' && before?.step.fields.dustBy === 'tack-cloth'
          ? 'a tack cloth just before it'
          : null
      }),
  },
  {
    slug: 'topcoat-climate',
    severity: 'stop',
    scope: 'start',
    source: 'WMO-No. 8; ISO 8502-4, from memory; common practice',
    reason: 'Damp, cold or hot air spoils the film.',
    mend: 'Wait for better air, warm or dry the room.',
    check: null,
  },
  {
    slug: 'two-part-after-pot-life',
    severity: 'stop',
    scope: 'start',
    source: COMMON,
    reason: 'A two-part mix past its pot life does not harden right.',
    mend: 'Mix a new pot.',
    check: null,
  },
  {
    slug: 'hardware-decided-first',
    severity: 'stop',
    scope: 'start',
    source: COMMON,
    reason: 'Old holes are plugged and new ones placed before surface repair and colour.',
    mend: "Get the client's word on the hardware first; record it under Client.",
    check: c =>
      c.facts.undecided.length === 0
        ? []
        : c.steps
            .filter(s => s.kind === 'mend' || does(s, 'covers'))
            .map(s => breach(s, `the client has not answered about: ${c.facts.undecided.join(', ')}`)),
  },
  {
    slug: 'no-dust-work-in-finishing-room',
    severity: 'stop',
    scope: 'shop',
    source: COMMON,
    reason: 'Dust falls into a wet coat in the same room.',
    mend: 'Sand elsewhere, or when the coat is dry.',
    check: null,
  },
]

/** Rules of the work on coats: cleaning, windows, rubbing, taping, packing, the room. */
import { median_um } from '../abrasives'
import { does, firstAfter, lastBefore, type StepKind, type Visit, wears } from '../acts'
import { taken } from '../materials'
import { isFlat } from '../units'
import {
  abrades,
  breach,
  COMMON,
  covers,
  DAY_MIN,
  each,
  films,
  FLATTED,
  gap_min,
  hours,
  leastElapsed_min,
  type Rule,
  tooSoon,
  top,
} from './rule'

const SHELLACS = ['shellac', 'dewaxed-shellac', 'shellac-brushed']
const words = (slug: string) => slug.replaceAll('-', ' ')
const isFilm = (v: Visit) => v.step.kind === 'coat'
const isBack = (f: { name: string }) => /inside|under|back/i.test(f.name)
/** What lays weight on a surface, in words. */
const LAID_ON: { [K in StepKind]?: string } = {
  'finish-up': 'the piece is put together',
  'turn': 'the board is turned over',
}

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

const laterFilm = (v: Visit) => firstAfter(v, isFilm)

export const HANDLING_RULES: readonly Rule[] = [
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
        if (!lastBefore(v, u => u.step.kind === 'gate')) return 'no wetting test between the solvent wash and this step'
        const film = v.product!.role === 'film'
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
        const [least] = taken(c.shelf, cure)!.cure_d
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
      each(c, v => {
        if (v.step.kind !== 'rub-out') return null
        const last = lastBefore(v, films)
        if (!last) return null
        const flatted = FLATTED.test(last.product?.sheen ?? '')
        const setByCoat = c.buildUp.ending === 'as-laid' && c.facts.sheen !== 'gloss'
        return flatted || setByCoat ? `the last coat has set the sheen: ${c.facts.sheen}` : null
      }),
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
        !laterFilm(v) &&
        v.group.substrate === 'solid' &&
        v.group.faces.some(
          f =>
            /door|panel|lid|leaf|flap/i.test(f.part) &&
            isFlat(f) &&
            !c.facts.faces.some(o => o.part === f.part && o.id !== f.id && (isBack(o) || isBack(f))),
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
        const laid = LAID_ON[v.step.kind]
        return laid && under?.slug === 'urethane-2c' && gap_min(c, under.step, v.step.key) < 2 * DAY_MIN
          ? tooSoon(under.step, 2 * DAY_MIN, `${laid} on a film of less than two days`)
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
    reason: 'Its resin makes fish eyes under waterborne films.',
    mend: 'A barely damp lint-free cloth instead.',
    check: c =>
      each(c, v => {
        const before = lastBefore(v)
        return isFilm(v) && v.product!.base === 'water' && before?.step.fields.dustBy === 'tack-cloth'
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
    mend: 'Sand outside, or when the coat is dry.',
    check: null,
  },
]

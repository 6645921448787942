/** Colour: bleach, conditioner, stain, gel, dye, toner, glaze, paint wash, touching up. */
import type { Context } from '../context'
import { taken } from '../materials'
import { FILLED } from '../piece'
import { speciesOf } from '../wood'
import {
  type Act,
  always,
  AS_PRODUCT,
  plainLayer,
  ANY_GROUND,
  NO_CAUTION,
  NO_NOTES,
  NOT_DRYING,
  NOTHING_MADE,
  perM2,
  type Unfit,
} from './act'
import type { Step, StepKind } from './step'
import { isBare, lay, type Surface } from './surface'
import { COLOUR_DRY, D, fixed, H, type WaitDraft } from './wait'
import { called } from './words'

const top = (s: Surface) => s.films.at(-1)!
const onBareWood = (rule: Unfit['rule'], says: string) => (s: Surface) =>
  isBare(s) ? null : { rule, says: `${top(s).slug.replaceAll('-', ' ')} ${says}` }
const AGAIN = 'Dark enough, judged dry.'
const COLOUR = {
  usesUp: true,
  makes: { ...NOTHING_MADE, vapour: true },
  does: ['covers', 'colours'],
  ground: ANY_GROUND,
  leaves: (s: Surface, step: Step, k: Context) => lay(step, s, k),
  open: NOT_DRYING,
  late: 'nothing',
  rounds: null,
  asks: ['used'],
  layer: null,
  fields: [],
  cautions: NO_CAUTION,
  inOrder: false,
  byHand: true,
  notes: NO_NOTES,
} as const

/** What each kind takes out, and what it leaves (handbook 18). */
const BLEACH_TAKES: Readonly<Record<string, readonly string[]>> = {
  'two-part-bleach': [
    "It takes out the wood's own colour. It goes darker before it goes lighter.",
    'Orange left when dry? Wet it and look; a paint wash, then a sealer, takes that back.',
  ],
  'oxalic-acid': [
    "It takes out iron and water marks, not dye and not the wood's colour.",
    'A kit that ends with crystals in warm water gives vapour: cartridges for acid gas, and the fan.',
  ],
  'household-chlorine': ["It takes out dyes, not the wood's colour. Rinse it out wholly before any acid or ammonia."],
}
const BLEACH_SAYS: Readonly<Record<string, string>> = {
  'oxalic-acid': 'Oxalic acid on the marks',
  'household-chlorine': 'Household chlorine, to take the dye out',
}
const BLEACH_WHY: Readonly<Record<string, string>> = {
  'two-part-bleach': 'a stain cannot go lighter than the wood; it gets darker before it gets lighter',
  'household-chlorine': "takes out dyes, not the wood's own colour",
}

/** More left on is darker and slower: twice as long (common practice, for a heavy gel coat). */
const heavier = ({ fields }: Step, wait: WaitDraft): WaitDraft =>
  fields.strength === 'stronger' ? { ...wait, min: 2 * wait.min, likely: 2 * wait.likely, safe: 2 * wait.safe } : wait

const bleach: Act = {
  ...COLOUR,
  called: 'bleach',
  needs: { roles: ['bleach'], always: true },
  pace: perM2(15),
  methods: ['brush', 'rag'],
  makes: { ...NOTHING_MADE, vapour: true, water: true },
  does: ['looks', 'floods'],
  ground: onBareWood('bleach-needs-bare-wood', 'lies on the wood'),
  then: step =>
    step.product === 'two-part-bleach'
      ? fixed('dwell', 8 * H, 12 * H, 16 * H, 'it works overnight')
      : fixed('dwell', 30, H, 2 * H, 'it works while wet'),
  layer: plainLayer(210, '', {
    everyday: 'bleached with',
    apart: 4,
    passes: m => (m.slug === 'two-part-bleach' ? 2 : 1),
    why: ({ step }) => BLEACH_WHY[step.product ?? ''] ?? 'takes out iron and water stains',
    after: () => [
      { kind: 'rinse', why: 'what stays in the wood eats the next film', method: 'rag' },
      { kind: 'sand', why: 'the treated layer is thin, edges cut through', grits: 'stop', fields: { after: 'bleach' } },
    ],
  }),
  rounds: {
    with: [{ kind: 'rinse', stands: 'after' }],
    worst: 2,
    passes: 'Judged dry: the mark is gone, or it is as pale inside the corners as on the flat.',
  },
  fields: ['where'],
  inOrder: true,
  notes: step => [
    ...(BLEACH_TAKES[step.product ?? ''] ?? []),
    'Small amounts, open vessel, never closed.',
    'Inside faces may want a round of their own.',
  ],
  says: step =>
    step.product === 'two-part-bleach'
      ? 'Bleach, A and B 1:1 in an open vessel, twice over; leave overnight'
      : (BLEACH_SAYS[step.product ?? ''] ?? 'Bleach'),
}

const conditioner: Act = {
  ...COLOUR,
  called: 'conditioner',
  needs: { roles: ['conditioner'], always: true },
  pace: perM2(6),
  methods: ['rag', 'brush'],
  does: ['covers'],
  ground: onBareWood('stain-needs-bare-wood', 'keeps the conditioner out'),
  then: (_step, next) =>
    next.kind === 'stain' || next.kind === 'gel'
      ? fixed('dwell', 5, 10, 15, 'stain within 2 h of the conditioner, or it has sealed too far', 2 * H)
      : COLOUR_DRY,
  late: 'condition-again',
  layer: plainLayer(300, '', {
    why: ({ step, k }) => {
      const blotchy = k.facts.faces.find(f => step.faces.includes(f.id) && speciesOf(f.species).blotches)
      return blotchy
        ? `${speciesOf(blotchy.species).name} takes stain in patches`
        : 'this wood need not blotch; the shop conditions it all the same'
    },
  }),
  notes: always('Flood, wait, wipe; the stain follows within two hours.'),
  says: () => 'Conditioner on, wipe after 5 to 15 min',
}

const stain: Act = {
  ...COLOUR,
  called: 'stain',
  does: ['covers', 'colours', 'soaks', 'lingers'],
  needs: { roles: ['stain'], always: true },
  pace: perM2(10),
  methods: ['rag', 'brush', 'spray'],
  ground: onBareWood('stain-needs-bare-wood', 'still lies on the wood'),
  then: (step, next) =>
    next.kind === 'stain'
      ? fixed('recoat', 2 * H, 2 * H, 4 * H, 'second coat of penetrating stain after 2 h')
      : heavier(step, COLOUR_DRY),
  layer: plainLayer(310, "the client's colour", { everyday: 'stained with' }),
  inOrder: true,
  notes: always(
    'With the grain, the whole face in one go. Edges and end grain take more: size them.',
    'Stain is never sanded.',
  ),
  says: () => 'Stain on and wipe',
}

/** Gel is wiped about three minutes after it went on, and may stay on twice that. */
const GEL_OPEN_MIN = 6
const gel: Act = {
  ...COLOUR,
  called: 'gel stain',
  does: ['covers', 'colours', 'lingers'],
  needs: { roles: ['gel'], always: true },
  pace: perM2(12),
  methods: ['rag', 'brush'],
  ground: s =>
    isBare(s) || s.scuffed || top(s).slug === 'gel-stain'
      ? null
      : { rule: 'gel-over-film-needs-scuff', says: 'the film under the gel is not scuffed' },
  then: (step, next) =>
    heavier(
      step,
      next.kind === 'gel'
        ? fixed('recoat', 8 * H, 12 * H, D, 'second gel coat after 8 to 10 h by some labels, 12 to 24 h by others')
        : COLOUR_DRY,
    ),
  layer: plainLayer(310, 'hides scratches and goes darker', { everyday: 'coloured with' }),
  open: () => ({ open_min: GEL_OPEN_MIN, min_m2: 12, says: 'wiped after about 3 min; less in hot weather' }),
  rounds: { with: [], worst: null, passes: AGAIN },
  inOrder: true,
  notes: always(
    'Stir half a minute; wipe with the grain in long strokes over the whole length, turning the cloth.',
    'Corners, slats and mouldings collect it: brush out dry. White specks in streaks: wipe dry.',
    'More left on is darker and slower: 24 h and longer, in damp air longer still.',
  ),
  says: () => 'Gel stain on, 3 min, wipe with the grain',
}

const dye: Act = {
  ...COLOUR,
  called: 'dye',
  does: ['covers', 'colours', 'soaks'],
  needs: { roles: ['dye'], always: true },
  pace: perM2(5),
  methods: ['spray', 'rag', 'brush'],
  ground: onBareWood('stain-needs-bare-wood', 'still lies on the wood'),
  then: (step, next, k) => {
    if (taken(k.shelf, step)?.base === 'alcohol') return fixed('dry', 10, 30, H, 'alcohol dye dries fast')
    if (next.kind === 'dye') return fixed('dry', H, 2 * H, 4 * H, 'judge each pass dry')
    return fixed('dry', 12 * H, 12 * H, D, 'water colour dries overnight before a film')
  },
  layer: plainLayer(311, '', {
    everyday: 'dyed with',
    rounds: m => (m?.slug === 'ammonia' ? 1 : AS_PRODUCT(m)),
    method: m => (m.slug === 'ammonia' ? 'brush' : 'spray'),
    why: ({ step }) =>
      step.product === 'ammonia' ? "darkens the wood's own tannin" : 'weak and many: saturating makes colours separate',
  }),
  rounds: { with: [], worst: null, passes: 'Even and dark enough, judged dry.' },
  fields: ['of'],
  inOrder: true,
  notes: always(
    'Correct light boards with a narrow fan first, then the whole with a wide one.',
    'Keep the rest, labelled, until the set is delivered.',
  ),
  says: step => {
    if (step.product === 'ammonia') return 'Dilute ammonia, judge dry, again a little stronger'
    const which = step.fields.of ? ` ${step.coat ?? 1} of ${step.fields.of}` : ''
    return `Dye, light pass${which}`
  },
}

const toner: Act = {
  ...COLOUR,
  called: 'toner',
  does: ['covers', 'films', 'colours', 'lingers'],
  needs: { roles: ['toner'], always: true },
  pace: perM2(5),
  methods: ['spray'],
  then: () => fixed('recoat', 10, 20, 30, 'flash time between mists'),
  layer: plainLayer(461, 'three to five light coats, from a distance', { rounds: AS_PRODUCT, everyday: 'toned with' }),
  rounds: { with: [], worst: null, passes: 'Dark enough under this light; each coat helps less.' },
  fields: ['of', 'shade'],
  inOrder: true,
  notes: always(
    'Dark bands and edges first, then the lighter overall mist.',
    'Start to the side of the piece, to clear the nozzle.',
  ),
  says: step => {
    const what = { dark: 'Dark toner, bands and edges', light: 'Light toner over all' }
    const mist = step.fields.of ? `, mist ${step.coat ?? 1} of ${step.fields.of}` : ''
    return `${step.fields.shade ? what[step.fields.shade] : 'Toner'}${mist}`
  },
}

const glaze: Act = {
  ...COLOUR,
  called: 'glaze',
  does: ['covers', 'films', 'colours', 'lingers'],
  needs: { roles: ['glaze'], always: true },
  pace: perM2(12),
  methods: ['rag', 'brush'],
  then: () => fixed('dry', 12 * H, D, 2 * D, 'glaze dries before the clear coat'),
  layer: plainLayer(460, 'darker in the recesses, as age makes it', { everyday: 'glazed with' }),
  says: () => 'Glaze on, wipe the heights, leave the recesses',
}

const paintWash: Act = {
  ...COLOUR,
  called: 'paint wash',
  needs: { roles: ['paint-wash'], always: true },
  pace: perM2(10),
  methods: ['rag', 'brush'],
  then: () => fixed('dry', 12 * H, 12 * H, D, 'the wash dries before it is sealed'),
  layer: plainLayer(310, 'paler, cooler, kills orange', { everyday: 'washed pale with' }),
  says: () => 'Paint wash on, wipe to the wanted paleness',
}

const spotColour: Act = {
  ...COLOUR,
  called: 'touch up colour',
  does: ['colours'],
  needs: { roles: ['film', 'dye', 'stain'], always: true },
  pace: perM2(4),
  methods: ['brush'],
  leaves: s => s,
  then: () => fixed('dry', 30, H, 2 * H, 'the touch-up dries'),
  fields: ['where'],
  notes: always(
    'Judged wet, as it will look under the film; paler first, the grain lines last. Wipe off around it at once.',
  ),
  says: (step, k) => {
    const fills = step.fields.spots?.some(s => FILLED.includes(s.kind))
    const what = fills ? 'Colour on the fills, wiped off around them' : 'Colour back'
    return `${what}: brush and ${step.product === 'dewaxed-shellac' ? 'shellac' : called(step, k)} with dye`
  },
}

export const COLOUR_ACTS = {
  'conditioner': conditioner,
  'stain': stain,
  'gel': gel,
  'spot-colour': spotColour,
  'bleach': bleach,
  'dye': dye,
  'toner': toner,
  'glaze': glaze,
  'paint-wash': paintWash,
} satisfies Partial<Record<StepKind, Act>>

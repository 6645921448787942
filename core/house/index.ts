/**
 * House methods: questions on which good practitioners differ. Each option with its reason (common practice). A shop
 * chooses once; a piece may differ. What a choice costs is worked out by planning twice, never written here.
 */
import type { Finish } from '../materials'
import type { Facts } from '../piece'

interface Method<O extends string> {
  asks: string
  usual: O
  options: Readonly<Record<O, { says: string; why: string }>>
}
const method = <O extends string>(
  asks: string,
  usual: NoInfer<O>,
  options: Record<O, { says: string; why: string }>,
): Method<O> => ({ asks, usual, options })
const o = (says: string, why: string) => ({ says, why })

export const HOUSE_METHODS = {
  'first': method('Sand first, or strip first?', 'strip', {
    strip: o('Strip first', 'Stripper does the work and the paper stays clean; less wood is lost.'),
    sand: o('Sand the film thin first', 'A coarse pass opens a hard film, and the stripper needs one round.'),
  }),
  'orbit-on-tops': method('Random orbit on show faces?', 'yes', {
    yes: o('Yes, last grit by hand', 'Quick and even; the hand with the grain takes the arcs out.'),
    no: o('Never: belt, finishing sander, hand', 'Arcs show only under stain, when it is too late.'),
  }),
  'stop-under-stain': method('Where to stop under stain?', 'P180', {
    P150: o('P150', 'Open pores take more colour.'),
    P180: o('P180', 'Fewer scratches show; the colour is a little paler.'),
  }),
  'conditioner': method('Conditioner before stain?', 'where-blotchy', {
    'where-blotchy': o('On blotching woods', 'It evens pine, birch, cherry; elsewhere it only costs colour.'),
    'always': o('Always', 'The same wood can still take stain in patches.'),
    'never': o('Never', 'Gel or dye instead; conditioned wood comes out pale.'),
  }),
  'between-coats': method('Grit between coats?', 'P320', {
    P320: o('P320', 'Grip, and nibs go quickly.'),
    P400: o('P400', 'Nothing shows through, edges are safer.'),
    P220: o('P220', 'Levels fast; can cut through stain at edges.'),
  }),
  'abrade-with': method('Pads or steel wool?', 'pads', {
    'pads': o('Non-woven pads', 'No specks of rust under water.'),
    'steel-wool': o('Steel wool', 'It follows turnings and cuts evenly; never before water.'),
  }),
  'dust': method('How is dust taken off?', 'tack-cloth', {
    'tack-cloth': o('Vacuum and tack cloth', 'Takes the last dust; pressed hard, its resin makes fish eyes.'),
    'damp-cloth': o('Vacuum and damp cloth', 'No resin; raises grain a little.'),
    'air-only': o('Air and vacuum only', 'No fibres from a cloth before a sprayed film.'),
  }),
  'fill-when': method('Fill before or after colour and sealer?', 'fill-stain', {
    'fill-stain': o('Fill bare, then stain', 'Cleanest wood around the pores when the filler takes stain.'),
    'stain-fill': o('Stain, then fill', 'The filler may differ from the wood on purpose.'),
    'seal-fill-seal': o('Seal, fill, seal', 'Keeps filler colour out of the wood; wipes off easily.'),
  }),
  'fill-wipe': method('Wipe filler across or with the grain?', 'across', {
    across: o('Across', 'Burlap across lifts the excess and leaves the pores full.'),
    with: o('With', 'No cross scratches in soft wood.'),
  }),
  'raise-grain': method('Raise the grain first?', 'when-water', {
    'when-water': o('Before water', 'Later water then raises little.'),
    'always': o('Always', 'Smoother, and water at the table breaks the bond less.'),
    'never': o('Never', 'It makes the surface a little coarser.'),
  }),
  'wet-out': method('Wet the bare wood and look before colour?', 'colour', {
    colour: o(
      'Before colour, and after bleach',
      'Glue, scratches and old finish show under the colour, when it is too late.',
    ),
    always: o('Always', 'Under a clear coat a scratch shows as well.'),
    never: o('Never', 'Raking light shows it dry.'),
  }),
  'test-piece': method('Colour and filler tried on scrap first?', 'never', {
    never: o('On the step panel only', 'A panel of the same wood is often there already, under Colour.'),
    colour: o(
      'A test piece before colour or filler',
      'The same wood, the same grits, every step: no surprise on the piece.',
    ),
  }),
  'both-sides': method('A board coated on both sides?', 'turn', {
    turn: o('Underside through, then turn over', 'Nothing lies on a fresh film, and the good side is done last.'),
    points: o('Both sides each time, on points', 'Half the coats to wait for; points leave pricks in the underside.'),
  }),
  'old-film': method('Colour over an old film, or strip?', 'overcoat', {
    overcoat: o('Overcoat where it holds', 'Least invasive, days faster.'),
    strip: o('Strip', 'What lies under a new film decides how long it holds.'),
  }),
  'old-surface': method('Patina, or bright wood?', 'patina', {
    patina: o('Stop at 90–95 %', 'On an old piece the mellow surface is what is worth money.'),
    bright: o('Down to bright wood', 'Even colour, nothing old comes up through the new finish.'),
  }),
  'oil-under-shellac': method('Oil under shellac?', 'none', {
    none: o('None', 'Nothing under the shellac that has to dry.'),
    raw: o('Raw, thin, wiped off', 'Deepens the figure; shellac may follow next day.'),
    boiled: o('Boiled, 14 days', 'Dries harder; bubbles if shellac follows sooner.'),
  }),
  'satin-by': method('Satin by rubbing, or from the can?', 'can', {
    can: o('Satin last coat', 'Quick, even over large faces.'),
    rub: o('Gloss, rubbed down', 'Clear in depth; the sheen can be tuned.'),
  }),
  'rub-from': method('From gloss to satin: which paper first?', 'P600', {
    P600: o('P600, wet', 'Gentler: less film goes, and the wool after it has less to take out.'),
    P320: o('P320, wet, with a drop of soap', 'Levels fast; wants about six coats of gloss below it.'),
  }),
  'dry-by': method('Trust the label, or the rag?', 'rag', {
    label: o('The label', 'The maker tested it at 21 °C and 50 %.'),
    rag: o('The rag, the dust, the thumbnail', 'A cool shop takes days longer; "feels dry" is not dry.'),
  }),
  'finish-school': method('Which finish by default?', 'film', {
    'film': o('A film', 'Hard and sealed.'),
    'oil': o('Varnish oil', 'Repairable in place, year after year.'),
    'hardwax-oil': o('Hardwax oil', 'One coat, repairable, hard enough for tables.'),
    'catalysed': o('Two-part film', 'Hardest; licensed sprayers only.'),
  }),
} as const

/** What each school lays by default. */
const SCHOOL: Record<keyof (typeof HOUSE_METHODS)['finish-school']['options'], Finish> = {
  'film': 'waterborne-polyurethane',
  'oil': 'varnish-oil',
  'hardwax-oil': 'hardwax-oil-2c',
  'catalysed': 'urethane-2c',
}
/** The finish that a shop offers first. Outdoors a film is one that moves with the wood (common practice). */
export const finishOfSchool = (house: House, use: Facts['use']): Finish =>
  use === 'outdoors' && house['finish-school'] === 'film' ? 'oil-polyurethane' : SCHOOL[house['finish-school']]

export type HouseSlug = keyof typeof HOUSE_METHODS
export type HouseOption<S extends HouseSlug> = keyof (typeof HOUSE_METHODS)[S]['options'] & string
export type House = { [S in HouseSlug]: HouseOption<S> }

export const HOUSE_SLUGS = Object.keys(HOUSE_METHODS) as HouseSlug[]
/** What a shop begins with. */
export const USUAL_HOUSE: House = Object.fromEntries(
  HOUSE_SLUGS.map(slug => [slug, HOUSE_METHODS[slug].usual]),
) as House

/** A house from stored answers; what is missing or unknown is the usual. */
export function houseOf(stored: Readonly<Record<string, string>>): House {
  const known = HOUSE_SLUGS.filter(
    slug => stored[slug] !== undefined && Object.hasOwn(HOUSE_METHODS[slug].options, stored[slug]),
  )
  return { ...USUAL_HOUSE, ...Object.fromEntries(known.map(slug => [slug, stored[slug]])) }
}

/** What mends a fault: words, and the steps that go into the plan where the fault showed. */
import type { Fields, StepKind } from '../acts'

export interface MendStep {
  /** again: what the failed step laid, once more · colour-again: the last colour; where none is known, as typed */
  kind: StepKind | 'again' | 'colour-again'
  /** typed, where the act does not say it by itself */
  title?: string
  /** typed, minutes of hands in all */
  attended_min?: number
  /** a class of material */
  product?: string
  /** grits with their scale */
  grits?: readonly string[]
  method?: 'hand' | 'wet' | 'brush' | 'rag'
  passes?: number
  /** left out where the plan lays a coat on it next anyway */
  ifLast?: true
  /** only where a film lies, or only on bare wood */
  on?: 'film' | 'bare'
  fields?: Fields
}
export interface Mend {
  says: string
  steps: readonly MendStep[]
  /** the face begins anew: another ground is chosen by hand */
  anew?: boolean
}
const by = (title: string, attended_min: number): MendStep => ({ kind: 'other', title, attended_min })
/** What came off is laid again; otherwise the plan's next coat does it, where there is one. */
const relaid: MendStep = { kind: 'again' }
const own: MendStep = { ...relaid, ifLast: true }
const pass: MendStep = { kind: 'sand-coat', grits: ['P320'], method: 'hand' }
// water stays off wood that an oil alone protects
const level: readonly MendStep[] = [
  { kind: 'sand-coat', grits: ['P320', 'P400'], method: 'wet', on: 'film' },
  { ...pass, on: 'bare' },
]
const wash: MendStep = {
  kind: 'solvent-wash',
  product: 'white-spirit',
  method: 'rag',
  passes: 2,
  fields: { against: 'contamination' },
}
// nothing sinks in through a barrier: an oil goes on again once the wash is dry
const barrier: MendStep = {
  kind: 'coat',
  product: 'dewaxed-shellac',
  fields: { as: 'against-contamination' },
  on: 'film',
}
const colourAgain: MendStep = { kind: 'colour-again', title: 'The same colour again, tried first', attended_min: 30 }
const dry = by('Leave it in warm, moving air until a thumbnail leaves no mark', 5)

const MENDS_TABLE = {
  'wash-and-barrier': {
    says: 'Sand it back, wash twice with solvent, under a film a barrier, look, then thin coats',
    steps: [pass, wash, barrier, relaid],
  },
  'sand-and-recoat': { says: 'Cured, sand it level and lay one thin coat', steps: [dry, pass, own] },
  'level-and-recoat': {
    says: 'Cured, level it within the film that is there, and coat again',
    steps: [dry, ...level, own],
  },
  'pass-and-recoat': { says: 'One light pass, then the next coat', steps: [{ ...pass, ifLast: true }, own] },
  'mist-retarder': {
    says: 'Dry and warm the air; mist retarder lightly, so that the film flows again',
    steps: [by('Dry and warm the air, and read it', 10), by('Mist retarder lightly, so that the film flows again', 15)],
  },
  'level-run': {
    says: 'Wait until it is hard, level the run alone, and coat again',
    steps: [dry, by('Scrape or level the run alone', 15), own],
  },
  'wait': { says: 'Warm, moving air, and wait', steps: [dry] },
  'wipe-and-wait': {
    says: 'Wipe with its thinner, then warm, moving air',
    steps: [by('Wipe with its own thinner, the cloth turned often', 20), dry],
  },
  'off-and-anew': { says: 'No good after days: it comes off, and the face begins anew', steps: [], anew: true },
  'strip-face': { says: 'Strip the face, and begin anew', steps: [], anew: true },
  'dry-then-anew': {
    says: 'Off, let the wood dry to what the room asks, and begin anew',
    steps: [by('Take off what lets go', 30), by('Let the wood dry; read it before anything seals it', 10)],
    anew: true,
  },
  'off-and-recoat': {
    says: 'Let it harden, take off what lifts, level, and coat again',
    steps: [dry, by('Take off what lifts, feather the edges', 30), pass, relaid],
  },
  'off-scuff-recoat': {
    says: 'Off as far as it lets go, scuff all of it, and coat again',
    steps: [by('Take off all that lets go, feather the edges', 30), pass, relaid],
  },
  'off-and-barrier': {
    says: 'Off as far as it lets go, wash, under a film a barrier, then coat again',
    steps: [dry, by('Take off what lifts or stays soft, feather the edges', 30), wash, barrier, relaid],
  },
  'sheen-coat': { says: 'Scuff, and a coat of the right sheen, tried for hold', steps: [pass, own] },
  'rub-whole': { says: 'Rub the whole face to one sheen', steps: [{ kind: 'rub-out', fields: { sheen: 'satin' } }] },
  'hand-sand-colour': {
    says: 'A light sanding by hand with the grain, in the colour, and another coat of it, blended',
    steps: [by('Sand lightly by hand with the grain, in the colour', 20), colourAgain],
  },
  'back-to-wood': {
    says: 'Back to the wood from P150, then the colour again',
    steps: [{ kind: 'sand', grits: ['P150', 'P180'], method: 'hand' }, colourAgain],
  },
  'tone-toward-dark': {
    says: 'Toward the dark with dye, gel or toner; else the colour comes off',
    steps: [by('Even it toward the dark: try dye, gel or toner on scrap first', 40)],
  },
  'tone-or-more': {
    says: 'Correct it by a toner or more of it; else the colour comes off',
    steps: [by('Correct the colour by toner or one more coat, tried on the panel first', 40)],
  },
  'tone-spots': { says: 'Tone the little that shows', steps: [by('Tone the spots under the next coat', 30)] },
  'colour-again': {
    says: 'The same colour on again, wiped clean in small sections',
    steps: [{ ...colourAgain, title: 'The same colour again, wiped clean in small sections' }],
  },
  'sand-filler-off': {
    says: 'Sand the film of filler off to clear wood, and wipe',
    steps: [{ kind: 'sand', grits: ['P220'], method: 'hand' }, { kind: 'clean-off' }],
  },
  'sand-dye-seal': {
    says: 'Sand, dye or glaze the pores, seal',
    steps: [pass, by('Dye or glaze the pores, wipe the face clean', 30), own],
  },
  'fill-again': {
    says: 'A second fill, or one with more body; let it cure, level it',
    steps: [
      { kind: 'fill', product: 'paste-filler' },
      { kind: 'sand-back', grits: ['P220'], method: 'hand' },
    ],
  },
  'wait-level-recoat': { says: 'Let it stop sinking, level, and coat again', steps: [dry, ...level, own] },
  'recolour-line': {
    says: 'Colour the line, then a coat over it',
    steps: [by('Colour the line: pen or fine brush, excess off at once', 15), own],
  },
  'thinner-rag': {
    says: 'A nearly dry thinner rag, away from the line',
    steps: [by('Wipe with a nearly dry thinner rag, away from the line', 15)],
  },
  'scrape-line': { says: 'Scrape it off the film along the line', steps: [by('Scrape it off along the line', 20)] },
  'touch-up': {
    says: 'Touch-up colour in layers, with lines of grain, under clear',
    steps: [by('Touch up in layers, with lines of grain', 25), by('Clear over the touched-up places', 10)],
  },
  'oxalic-or-tone': {
    says: 'On bare wood oxalic acid, rinsed; through a film tone it or strip',
    steps: [
      { kind: 'bleach', product: 'oxalic-acid', method: 'brush', fields: { where: 'spots' }, on: 'bare' },
      { kind: 'rinse', method: 'rag', passes: 2, on: 'bare' },
      { ...by('Tone what shows through the film, in layers', 30), on: 'film' },
    ],
  },
  'kill-mould': {
    says: 'Kill the mould, and dry the wood',
    steps: [by('Kill the mould, wipe it off outdoors', 20), by('Dry the wood; find where the water came from', 10)],
  },
  'warm-and-rub': {
    says: 'Gentle warmth, then oil and a fine abrasive; alcohol or retarder mist on shellac or lacquer',
    steps: [by('Gentle warmth; then oil and a fine abrasive, with the grain', 20)],
  },
  'touch-torn-edge': {
    says: 'Touch in the torn edge, and coat it',
    steps: [by('Touch in the torn edge', 20), own],
  },
  'tape-glue-off': {
    says: 'Glue off with white spirit',
    steps: [
      {
        kind: 'solvent-wash',
        product: 'white-spirit',
        method: 'rag',
        fields: { against: 'tape-residue', where: 'spots' },
      },
    ],
  },
  'knock-back': {
    says: 'Knock it back with a pad or the last grit, then go on',
    steps: [{ ...pass, ifLast: true }],
  },
  'none': { says: 'Nothing to mend: it is as it must be', steps: [] },
} as const satisfies Record<string, Mend>
export type MendSlug = keyof typeof MENDS_TABLE
export const MENDS: Readonly<Record<MendSlug, Mend>> = MENDS_TABLE

/** The questions of the walk round a piece, in the order in which one looks. Common practice. */
import type { Facts, FindingKind } from '../piece'
import { speciesOf } from '../wood'

export const STATIONS = [
  'history',
  'raking-light',
  'touch',
  'wash',
  'edges',
  'insides',
  'underside',
  'hardware',
  'joints',
  'wood',
] as const
export type Station = (typeof STATIONS)[number]

export interface WalkOption {
  slug: string
  says: string
  /** choosing it records this finding, to be placed on its face */
  finding?: FindingKind
  /** choosing it corrects the part's faces */
  substrate?: 'solid' | 'veneer'
}

export interface WalkContext {
  facts: Facts
  /** options chosen so far, as `question:option`; of a question per part, whatever the part */
  said: ReadonlySet<string>
  found: (...kinds: FindingKind[]) => boolean
}
export interface PartFaces {
  name: string
  faces: Facts['faces']
}

export interface Question {
  slug: string
  station: Station
  asks: string
  how: string
  /** several options may be chosen */
  many: boolean
  per: 'piece' | 'part'
  options: readonly WalkOption[]
  /** the one that says that there is nothing; closes the question alone */
  nothing: string | null
  when: (c: WalkContext, part: PartFaces | null) => boolean
}

const always = () => true
const OLD = ['before-1850', '1850-1925', '1925-1960', 'unknown']
const finds = (...kinds: FindingKind[]): WalkOption[] => kinds.map(kind => ({ slug: kind, says: '', finding: kind }))
const option = (slug: string, says: string, more: Partial<WalkOption> = {}): WalkOption => ({ slug, says, ...more })
const one = (q: Omit<Question, 'many' | 'per' | 'nothing' | 'when'> & Partial<Question>): Question => ({
  many: false,
  per: 'piece',
  nothing: null,
  when: always,
  ...q,
})
const many = (q: Omit<Question, 'many' | 'per' | 'nothing' | 'when'> & Partial<Question>): Question => {
  const nothing = q.nothing ?? 'nothing'
  return {
    many: true,
    per: 'piece',
    when: always,
    ...q,
    nothing,
    options: [...q.options, option(nothing, 'Nothing of this')],
  }
}
const showing = (part: PartFaces | null) => part?.faces.some(f => f.rank !== 'hidden') ?? false
const veneered = (part: PartFaces | null) => part?.faces.some(f => f.substrate === 'veneer') ?? false

export const QUESTIONS: readonly Question[] = [
  one({
    slug: 'stood-where',
    station: 'history',
    asks: 'Where has it stood?',
    how: 'Ask the client.',
    options: [
      option('heated', 'Heated room'),
      option('attic', 'Attic, barn, cellar'),
      option('flooded', 'It got wet'),
      option('collection', 'Museum or collection'),
      option('unknown', 'Not known'),
    ],
  }),
  one({
    slug: 'worm',
    station: 'history',
    asks: 'Was it ever treated against woodworm?',
    how: 'Ask the client; smell in the drawers.',
    when: c => c.found('woodworm') || c.said.has('stood-where:attic'),
    options: [option('treated', 'Yes'), option('untreated', 'No'), option('unknown', 'Not known')],
  }),
  many({
    slug: 'raking-light',
    station: 'raking-light',
    per: 'part',
    asks: 'What shows in raking light?',
    how: 'Lamp low, along the surface, then across. Begin where the light grazes.',
    when: (_c, part) => showing(part),
    options: finds(
      'scratches',
      'dents',
      'white-ring',
      'black-ring',
      'heat-mark',
      'crazing',
      'runs',
      'brush-marks',
      'orange-peel',
      'light-bleached',
      'worn-through',
      'peeling',
    ),
  }),
  many({
    slug: 'sander-marks',
    station: 'raking-light',
    asks: 'Are there arcs from a sander, or a patch sanded through?',
    how: 'Small arcs in rows; a paler patch with a glue line.',
    when: c => c.facts.refinished !== 'no' && c.facts.faces.some(f => f.shape === 'flat'),
    options: finds('swirl-marks', 'sanded-through', 'overspray'),
  }),
  many({
    slug: 'touch',
    station: 'touch',
    asks: 'What do bare fingers feel?',
    how: 'Take one glove off. Palm flat, then a thumbnail.',
    options: finds('coarse-film', 'print', 'soft-film'),
  }),
  one({
    slug: 'since-when-soft',
    station: 'touch',
    asks: 'Where is it soft or sticky?',
    how: 'Hands and backs leave fat; heat and polish soften all over.',
    when: c => c.found('print', 'soft-film'),
    options: [
      option('hands', 'Where hands and arms lie'),
      option('all-over', 'All over'),
      option('under-things', 'Where things stood'),
    ],
  }),
  one({
    slug: 'smell',
    station: 'touch',
    asks: 'What does it smell of?',
    how: 'Open a drawer or a door first.',
    options: [
      option('nothing', 'Nothing much'),
      option('musty', 'Musty'),
      option('smoke', 'Smoke', { finding: 'odour' }),
      option('oil', 'Old oil or wax'),
    ],
  }),
  one({
    slug: 'water-sign',
    station: 'wash',
    asks: "Wash a hand's breadth. What does the water do?",
    how: 'Damp cloth, a drop of mild soap; look along the wet patch.',
    options: [
      option('spreads', 'Spreads evenly'),
      option('beads', 'Beads or pools in patches', { finding: 'water-beads' }),
      option('soaks', 'Soaks in at once'),
    ],
  }),
  one({
    slug: 'polish-used',
    station: 'wash',
    asks: 'What was it polished with?',
    how: 'Ask the client. Silicone comes back as fish eyes in every coat.',
    when: c => c.said.has('water-sign:beads') || c.found('water-beads', 'fish-eyes'),
    options: [
      option('silicone', 'Spray polish'),
      option('wax', 'Wax'),
      option('oil', 'Oil polish'),
      option('unknown', 'Not known'),
    ],
  }),
  one({
    slug: 'rag',
    station: 'wash',
    asks: 'How does the rag come away?',
    how: 'White rag, white spirit, 30 s on a hidden spot.',
    when: c => !c.said.has('water-sign:soaks'),
    options: [
      option('clean', 'Clean'),
      option('dirty', 'Dirty or waxy', { finding: 'dirt-and-wax' }),
      option('coloured', 'Coloured by the finish'),
    ],
  }),
  one({
    slug: 'worn-or-open',
    station: 'wash',
    asks: 'Where does it soak in?',
    how: 'Worn places only, or everywhere?',
    when: c => c.said.has('water-sign:soaks'),
    options: [
      option('worn', 'Where hands and feet wore it', { finding: 'worn-through' }),
      option('everywhere', 'Everywhere: bare or oiled'),
    ],
  }),
  one({
    slug: 'veneer-edge',
    station: 'edges',
    per: 'part',
    asks: 'Solid or veneer? Look at an edge, a keyhole, a screw hole.',
    how: 'Grain that runs round the edge is solid. Measure the thickness if you can, under Wood.',
    when: (_c, part) =>
      part!.faces.some(f => (f.substrate === 'veneer' && f.veneer_mm === null) || f.species === 'unknown'),
    options: [
      option('solid', 'Solid', { substrate: 'solid' }),
      option('veneer', 'Veneer', { substrate: 'veneer' }),
      option('hidden', 'Cannot be seen'),
    ],
  }),
  many({
    slug: 'veneer-state',
    station: 'edges',
    per: 'part',
    asks: 'How does the veneer lie?',
    how: 'Tap with a fingernail: hollow is loose.',
    when: (_c, part) => veneered(part),
    options: finds('veneer-chipped', 'veneer-lifted', 'veneer-blistered'),
  }),
  one({
    slug: 'layers-at-chip',
    station: 'edges',
    per: 'part',
    asks: 'How many layers show at a chip or a worn edge?',
    how: 'Loupe; a blade held upright makes a small stair.',
    when: (c, part) =>
      showing(part) && (c.facts.refinished !== 'no' || c.found('old-paint', 'several-layers', 'peeling')),
    options: [
      option('one', 'One'),
      option('several', 'Several', { finding: 'several-layers' }),
      option('none', 'No chip to see it'),
    ],
  }),
  one({
    slug: 'lowest-layer',
    station: 'edges',
    asks: 'What does the lowest layer look like?',
    how: 'Test it as layer 2 under Finish, where the upper one is off.',
    when: c => c.said.has('layers-at-chip:several'),
    options: [
      option('clear', 'Clear'),
      option('opaque', 'Opaque: paint', { finding: 'old-paint' }),
      option('unseen', 'Cannot be seen'),
    ],
  }),
  many({
    slug: 'insides',
    station: 'insides',
    asks: 'What is inside?',
    how: 'Drawers out, doors open, lamp in.',
    options: [
      option('woodworm', '', { finding: 'woodworm' }),
      option('mould', '', { finding: 'mould' }),
      option('powder', 'White powder or crystals'),
      option('mirror', 'A mirror'),
      option('board', 'A grey lining board'),
      option('upholstery', 'Upholstery'),
    ],
  }),
  one({
    slug: 'fresh-dust',
    station: 'insides',
    asks: 'Is there fresh dust under the worm holes?',
    how: 'Tap over dark paper. Pale dust that falls is fresh.',
    when: c => c.found('woodworm'),
    options: [option('fresh', 'Yes: it is alive'), option('old', 'No: old')],
  }),
  one({
    slug: 'mirror-back',
    station: 'insides',
    asks: "What is on the mirror's back?",
    how: 'Look only; do not open or scrape it.',
    when: c => c.said.has('insides:mirror'),
    options: [
      option('tin', 'Grey, sparkling, uneven'),
      option('painted', 'Smooth and painted'),
      option('closed', 'Closed; cannot be seen'),
    ],
  }),
  one({
    slug: 'board-lining',
    station: 'insides',
    asks: 'What is the lining board made of?',
    how: 'Look at an existing edge. Do not cut or drill it.',
    when: c => c.said.has('insides:board'),
    options: [
      option('wood', 'Wood fibre: brown, furry'),
      option('mineral', 'Grey, mineral'),
      option('unknown', 'Not sure'),
    ],
  }),
  one({
    slug: 'ivory-inlay',
    station: 'insides',
    asks: 'Is there a white inlay, key plate or knob?',
    how: 'Ivory has fine crossing lines; bone has dark pores.',
    when: c => OLD.includes(c.facts.period),
    options: [option('none', 'No'), option('bone', 'Bone or plastic'), option('ivory', 'Looks like ivory')],
  }),
  one({
    slug: 'makers-mark',
    station: 'underside',
    asks: 'Is there a label, stamp or number?',
    how: 'Underside, back, drawer bottoms. It is kept.',
    options: [option('none', 'No'), option('yes', 'Yes: record it under Parts')],
  }),
  many({
    slug: 'hardware',
    station: 'hardware',
    asks: 'How is the hardware?',
    how: 'Count knobs, hinges, locks, keys, screws, glass. Record each under Parts.',
    nothing: 'complete',
    options: [
      option('missing', 'Something is missing'),
      option('mismatched', 'Something does not match'),
      option('none', 'There is no hardware'),
    ],
  }),
  many({
    slug: 'joints',
    station: 'joints',
    asks: 'What moves, gapes or is gone?',
    how: 'Rock it on its feet; pull each leg, rail and door.',
    options: finds('loose-leg', 'open-joint', 'crack', 'missing-piece'),
  }),
  one({
    slug: 'crack-moves',
    station: 'joints',
    asks: 'Does the crack open and close with the seasons?',
    how: 'Draw it on its face with the width of its gap; the swing is worked out.',
    when: c => c.found('crack'),
    options: [option('yes', 'Yes'), option('no', 'No'), option('unknown', 'Not known')],
  }),
  one({
    slug: 'which-wood',
    station: 'wood',
    per: 'part',
    asks: 'Can you name the wood?',
    how: 'End grain under the loupe: rows of large pores, or none.',
    when: (_c, part) => part!.faces.some(f => f.species === 'unknown'),
    options: [
      option('open', 'Large pores; no name'),
      option('closed', 'No pores; no name'),
      option('named', 'Yes: name it under Wood'),
    ],
  }),
  one({
    slug: 'meter',
    station: 'wood',
    asks: 'Take a moisture reading.',
    how: 'Pins in a hidden spot, with the grain. Enter it under Wood.',
    when: c =>
      ['stood-where:attic', 'stood-where:flooded', 'smell:musty'].some(s => c.said.has(s)) ||
      c.found('mould', 'white-ring', 'peeling', 'veneer-lifted'),
    options: [option('taken', 'Taken'), option('no-meter', 'No meter here')],
  }),
  one({
    slug: 'softer-wood',
    station: 'wood',
    asks: 'Do both woods have to look alike?',
    how: 'One stain gives two colours on two woods.',
    when: c => new Set(c.facts.faces.filter(f => f.scope === 'refinish').map(f => speciesOf(f.species).slug)).size > 1,
    options: [option('alike', 'Alike'), option('as-they-are', 'As they are'), option('ask', 'Ask the client')],
  }),
]

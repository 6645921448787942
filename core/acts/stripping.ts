/** Taking the old finish off: roughen, strip, scrape, wash off, sand off. */
import { isCoarser, P } from '../abrasives'
import { isFound, workArea_m2 } from '../piece'
import {
  type Act,
  always,
  ANY_GROUND,
  LOUD,
  NO_CAUTION,
  NO_NOTES,
  NO_WAIT,
  NOT_DRYING,
  NOTHING_MADE,
  perM2,
  SETUP_MIN,
} from './act'
import type { StepKind } from './step'
import type { Surface } from './surface'
import { fixed, H } from './wait'
import { gritsSaid } from './words'

const STRIP_M2 = 6
const SCRAPE_M2 = 15
/** The sludge that is scraped off, and the rags after it. */
const SLUDGE = () => ['sludge', 'skin'] as const
const WEARS = { ...NOTHING_MADE, wears: true }

/** Stripping does not prove contamination gone, and takes the barrier with it: it is washed and looked for anew. */
const unproven = ({ contamination }: Surface): Surface['contamination'] =>
  contamination === 'none' ? 'none' : 'untreated'

const roughen: Act = {
  called: 'roughen the film',
  needs: null,
  usesUp: false,
  pace: perM2(8),
  methods: ['hand', 'random-orbit', 'wet'],
  makes: { ...WEARS, dust: true, noise: true },
  does: ['abrades'],
  ground: ANY_GROUND,
  leaves: s => s,
  then: NO_WAIT,
  open: NOT_DRYING,
  late: 'nothing',
  rounds: null,
  asks: [],
  layer: null,
  fields: ['grits'],
  cautions: NO_CAUTION,
  inOrder: false,
  byHand: true,
  notes: NO_NOTES,
  says: step =>
    LOUD.includes(step.method)
      ? `Sand the film thin ${gritsSaid(step.grits)}`
      : `Roughen the hard film ${gritsSaid(step.grits)}`,
}

const dwell = (thick: boolean) =>
  thick
    ? fixed('dwell', 60, 120, 120, 'thick old film: it works 1 to 3 h, and only while wet', 3 * H)
    : fixed('dwell', 15, 20, 20, 'thin film, open: 15 to 30 min, then it starts to dry', 30)

const strip: Act = {
  called: 'stripper on',
  needs: { roles: ['stripper'], always: true },
  usesUp: true,
  pace: perM2(STRIP_M2),
  methods: ['brush', 'hand'],
  makes: { ...WEARS, vapour: true },
  does: [],
  ground: ANY_GROUND,
  leaves: s => ({ ...s, wet: 'stripper' }),
  then: (step, _next, k) => dwell(isFound(k.facts, 'several-layers', 'runs')),
  open: (step, k) => {
    const wait = dwell(isFound(k.facts, 'several-layers', 'runs'))
    const says = `scraped between ${wait.likely} and ${wait.max} min`
    return { open_min: wait.max! - wait.likely, min_m2: SCRAPE_M2, says }
  },
  late: 'wet-again',
  rounds: { with: [{ kind: 'scrape', stands: 'after' }], worst: 2, passes: 'A scraped corner shows clean wood.' },
  asks: ['used'],
  layer: null,
  fields: [],
  cautions: SLUDGE,
  inOrder: true,
  byHand: true,
  notes: always('Brush one way and leave it; test by scraping a corner.'),
  says: () => 'Stripper on, thick and even',
}

const scrape: Act = {
  called: 'scrape off',
  needs: null,
  usesUp: false,
  pace: (step, faces, { facts: { pace } }) => {
    const min_m2 = pace.stripper === null ? SCRAPE_M2 : Math.max(0, pace.stripper - STRIP_M2)
    return SETUP_MIN + workArea_m2(faces) * min_m2 * step.passes
  },
  methods: ['hand'],
  makes: WEARS,
  does: [],
  ground: ANY_GROUND,
  leaves: s => ({ ...s, wet: null, films: s.films.map(f => ({ ...f, dry_um: f.dry_um * 0.05 })) }),
  then: NO_WAIT,
  open: NOT_DRYING,
  late: 'nothing',
  rounds: null,
  asks: [],
  layer: null,
  fields: [],
  cautions: SLUDGE,
  inOrder: false,
  byHand: true,
  notes: always(
    'Sludge is hazardous waste in most places: ask the local authority.',
    'Sticks and string for grooves and turnings; take the tape off and scrape the rim.',
  ),
  says: () => 'Scrape off',
}

const washOff: Act = {
  called: 'wash off',
  needs: { roles: ['cleaner'], always: true },
  usesUp: true,
  pace: perM2(12),
  methods: ['rag', 'steel-wool', 'hand'],
  makes: { ...WEARS, vapour: true },
  does: ['cleans'],
  ground: ANY_GROUND,
  leaves: (s, step) => ({
    ...s,
    films: [],
    inWood: [],
    scuffed: false,
    grit: null,
    dirty: false,
    openColour: null,
    filler: null,
    contamination: unproven(s),
    steelWool: step.method === 'steel-wool',
  }),
  then: () => fixed('dry', 2 * H, 4 * H, 12 * H, 'the washing solvent leaves pores and corners'),
  open: NOT_DRYING,
  late: 'nothing',
  rounds: null,
  asks: ['used'],
  layer: null,
  fields: [],
  cautions: SLUDGE,
  inOrder: false,
  byHand: true,
  notes: NO_NOTES,
  says: step =>
    `Wash off${step.method === 'steel-wool' ? ' with steel wool' : ''}, ` + 'three times and once more clean',
}

const sandOff: Act = {
  called: 'scrape and sand off',
  needs: null,
  usesUp: false,
  pace: perM2(30),
  methods: ['random-orbit', 'hand', 'wet'],
  makes: { ...WEARS, dust: true, noise: true },
  does: ['abrades'],
  ground: ANY_GROUND,
  leaves: (s, step) => ({
    ...s,
    films: [],
    inWood: [],
    scuffed: false,
    grit: step.grits.at(-1) ?? null,
    dusty: true,
    openColour: null,
    filler: null,
    contamination: unproven(s),
  }),
  then: NO_WAIT,
  open: NOT_DRYING,
  late: 'nothing',
  rounds: null,
  asks: [],
  layer: null,
  fields: ['grits'],
  cautions: NO_CAUTION,
  inOrder: false,
  byHand: true,
  notes: NO_NOTES,
  says: step => {
    if (step.method === 'wet') return 'Scrape the film off wet'
    return step.grits.every(g => !isCoarser(g, P(180)))
      ? 'Scrape the film off with a card scraper, no paper coarser than P180'
      : `Scrape and sand the film off, ${gritsSaid(step.grits)}`
  },
}

export const STRIPPING_ACTS = {
  'roughen': roughen,
  'strip': strip,
  'scrape': scrape,
  'wash-off': washOff,
  'sand-off': sandOff,
} satisfies Partial<Record<StepKind, Act>>

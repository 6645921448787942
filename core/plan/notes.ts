/**
 * How a step is done: which face first, in what sections before it dries, along or across the grain, with what care.
 * All common practice.
 */
import { type StepKind, type Step, waitAfter } from '../acts'
import { materialOf } from '../materials'
import { faceFactor, type Face, type Facts } from '../piece'
import { round, sumOf } from '../units'

/** What is said with every step of a kind. */
const ALWAYS: Partial<Record<StepKind, readonly string[]>> = {
  'take-apart': [
    'Mark each part and bag its screws before the next comes off.',
    'A table with leaves: open it and take them out; it needs its whole length on trestles.',
  ],
  'cover': [
    'Plastic on the floor, the base wrapped.',
    'Tape about 6 mm in from an edge, a card strip in a rule joint or groove.',
  ],
  'mask': ['Tape on the rim only, lifted soon; press its edge down.'],
  'unmask': ['Away from the fresh colour. A bleed-under comes off with a nearly dry thinner rag.'],
  'strip': ['Brush one way and leave it; test by scraping a corner.'],
  'scrape': [
    'Sludge is hazardous waste in most places: ask the local authority.',
    'Sticks and string for grooves and turnings; take the tape off and scrape the rim.',
  ],
  'sand': [
    'Stay off mouldings, veneer edges and coated arrises: they cut through first.',
    'Paler wood or a glue line under the paper means stop.',
  ],
  'sand-coat': ['A few light strokes with the grain; edges left alone.'],
  'raise-grain': ['Edges too; wipe at once.'],
  'bleach': ['Small amounts, open vessel, never closed.', 'Inside faces may want a round of their own.'],
  'rinse': ['A cabinet takes 40 to 45 litres; little at a time on veneer.'],
  'fill': ['Stir first: old paste filler takes 20 to 30 minutes. Tint it and try it under the finish.'],
  'gel': ['Stir half a minute; wipe with the grain in long strokes over the whole length, turning the cloth.'],
  'stain': ['With the grain, the whole face in one go.'],
  'conditioner': ['Flood, wait, wipe; the stain follows within two hours.'],
  'dye': [
    'Correct light boards with a narrow fan first, then the whole with a wide one.',
    'Keep the rest, labelled, until the set is delivered.',
  ],
  'toner': [
    'Dark bands and edges first, then the lighter overall mist.',
    'Start to the side of the piece, to clear the nozzle.',
  ],
  'oil-on': ['Feed thirsty spots; keep it wet until it is wiped.'],
  'oil-off': ['All of it, corners too. Rags flat outdoors or under water.'],
  'rub-out': ['Shiny spots are the low ones; stop at the first sign of colour.'],
}
const BRUSHED = [
  'Stir, strain; thin, from the middle out to each end, join, one pass over the whole length, then leave it.',
  'Come off the edges lightly, so that nothing runs down.',
]
const SPRAYED = [
  'Strain; test pattern first. Start before the piece and release after it, a third to a half overlapping.',
  'Underside first: it tunes gun and strength.',
]

/** Minutes that a wet edge stays open under the brush (common practice; where none is known, a shop default of 4). */
const WET_EDGE_MIN: Readonly<Record<string, number>> = {
  'dewaxed-shellac': 1.5,
  'shellac-brushed': 1.5,
  'oil-polyurethane': 7.5,
  'wiping-varnish': 7.5,
  'resin-oil-varnish': 7.5,
}
const WET_EDGE_DEFAULT_MIN = 4
/** Gel is wiped about three minutes after it went on, and may stay on twice that. */
const GEL_OPEN_MIN = 6

/** Minutes of hands inside the window, and minutes for each m² of it. Null: nothing dries while it is worked. */
function openTime(step: Step, facts: Facts): { open_min: number; minutes_m2: number; says: string } | null {
  const m = step.product ? materialOf(step.product) : null
  const span = (kind: StepKind) => waitAfter(step, { ...step, kind, gate: null }, facts)
  switch (step.kind) {
    case 'strip': {
      const w = span('scrape')
      return { open_min: w.max! - w.likely, minutes_m2: 15, says: `scraped between ${w.likely} and ${w.max} min` }
    }
    case 'oil-on': {
      const w = span('oil-off')
      return { open_min: w.max! - w.likely, minutes_m2: 8, says: `wiped off between ${w.likely} and ${w.max} min` }
    }
    case 'fill': {
      const w = span('fill-off')
      return { open_min: w.max! - w.likely, minutes_m2: 10, says: `wiped between ${w.likely} and ${w.max} min` }
    }
    case 'gel':
      return { open_min: GEL_OPEN_MIN, minutes_m2: 12, says: `wiped after about 3 min; less in hot weather` }
    case 'coat': {
      if (step.method !== 'brush') return null
      const open_min = WET_EDGE_MIN[step.product!] ?? WET_EDGE_DEFAULT_MIN
      return { open_min, minutes_m2: m!.minutes_m2, says: `the wet edge stays open about ${open_min} min` }
    }
    default:
      return null
  }
}

/** Sections that can be worked before they dry: m² each, and how many. Null where one will do, or nothing dries. */
export function sectionsOf(
  step: Step,
  faces: readonly Face[],
  facts: Facts,
): { area_m2: number; count: number; says: string } | null {
  const window = openTime(step, facts)
  if (!window) return null
  const area_m2 = window.open_min / window.minutes_m2
  const count = Math.ceil(sumOf(faces, f => f.area_m2 * faceFactor(f)) / area_m2)
  return count > 1 ? { area_m2, count, says: window.says } : null
}

/** The sharp edge is broken with the last grits. */
const EDGE_FROM_P = 150

const RANKS = ['hidden', 'secondary', 'show'] as const
const ORDERED: readonly StepKind[] = ['coat', 'gel', 'stain', 'dye', 'toner', 'oil-on', 'strip', 'bleach']

/** How this step is done on these faces, in words. */
export function notesOf(step: Step, facts: Facts): string[] {
  const faces = facts.faces.filter(f => step.faces.includes(f.id))
  const sections = sectionsOf(step, faces, facts)
  const order = [...faces].sort(
    (a, b) =>
      RANKS.indexOf(a.rank) - RANKS.indexOf(b.rank) ||
      Number(a.orientation === 'horizontal') - Number(b.orientation === 'horizontal'),
  )
  const first = order[0]
  const last = order.at(-1)
  const bareTop =
    step.kind === 'sand' &&
    Math.max(...step.grits) >= EDGE_FROM_P &&
    faces.some(f => f.substrate === 'solid' && f.shape === 'flat' && f.rank === 'show')
  return [
    ...(sections ? [`About ${sections.count} sections of ${round(sections.area_m2, 1)} m²: ${sections.says}.`] : []),
    ...(ORDERED.includes(step.kind) && first && last && first !== last
      ? [`First: ${first.part}, ${first.name}. Last: ${last.part}, ${last.name}.`]
      : []),
    ...(step.method === 'random-orbit' ? ['Random orbit: light hand, about 25 mm a second.'] : []),
    ...(ALWAYS[step.kind] ?? []),
    ...(bareTop
      ? ['At the end break the sharp edge of the bare top lightly by hand: film holds there and chips less.']
      : []),
    ...(step.kind === 'coat' && step.method === 'spray' ? SPRAYED : []),
    ...(step.kind === 'coat' && step.method !== 'spray' ? BRUSHED : []),
  ]
}

/** The pieces of the demo shop, made up. */
import type { FaceRow } from './shop'

export type DemoPlace =
  | ['point', x: number, y: number, size: number, copy?: number]
  | ['line' | 'area', x: number, y: number, x2: number, y2: number, size?: number, copy?: number]
  | ['face', copy?: number]
export interface DemoPiece {
  name: string
  client: [name: string, mail: string]
  faces: FaceRow[]
  more?: Record<string, unknown>
  tests?: [test: string, result: string, group?: string, layer?: number][]
  findings?: [face: number, kind: string, grade: number, wish?: string, place?: DemoPlace, note?: string][]
  /** faces that carry another finish than A */
  groups?: Record<number, string>
  walk?: [key: string, ...options: string[]][]
  moisture?: [face: number, reading_pct: number, thickness: string, daysAgo: number][]
  items?: {
    name: string
    kind?: string
    count?: number
    state?: string
    set?: string
    note?: string
    place?: [kind: string, code: string]
    out?: number
    holes?: { centres_mm: number[]; diameter_mm: number; plate_w_mm: number | null; plate_h_mm: number | null }
    ask?: string
  }[]
  patches?: { face: number; method: string; minutes: number; result: string; note: string }[]
  /** an examination kept before the work, under this name */
  kept?: string
  /** a photograph after the work, paired with the first */
  after?: string
  choice?: { route: string; finish: string; colour?: string }
  /** a surface known by name, composed after the choice */
  surface?: string
  /** faces that go another way than the piece */
  own?: { faces: number[]; route: string; finish: string }
  /** parts that are left alone */
  /** parts that are no wood, and of what */
  made?: Readonly<Record<string, string>>
  alone?: string[]
  begun?: number
  words?: string
  /** what happens after the yes */
  story?:
    | 'planned'
    | 'coated'
    | 'oiled'
    | 'asked'
    | 'asked-question'
    | 'approved'
    | 'dwelling'
    | 'oil-on'
    | 'conditioned'
    | 'dyed'
    | 'drying'
    | 'curing'
    | 'gate-failed'
    | 'gate-open'
    | 'lacquer-next'
    | 'asked-expired'
    | 'declined'
    | 'ready'
    | 'handed-over'
}
const varnish: [string, string][] = [
  ['lacquer-thinner-drop', 'wrinkles'],
  ['scrape', 'powder'],
  ['uv-lamp', 'milky, greenish'],
]
const shellac: [string, string][] = [
  ['alcohol-drop', 'sticky'],
  ['scrape', 'powder'],
]
const lacquer: [string, string][] = [
  ['lacquer-thinner-drop', 'dissolves'],
  ['alcohol-drop', 'nothing'],
  ['scrape', 'powder'],
]

export const PIECES: readonly DemoPiece[] = [
  {
    name: 'Piano stool',
    client: ['Greta Almqvist', 'greta@example.invalid'],
    begun: 24,
    faces: [
      ['seat', 'top', 'flat', 'horizontal', '340', '340', 1, 'beech'],
      ['legs', 'round', 'turned', 'vertical', '420', '45', 4, 'beech'],
    ],
    more: { period: '1850-1925', lead: 'no', refinished: 'no' },
    tests: shellac,
    findings: [[0, 'scratches', 3, 'mend', ['line', 60, 80, 260, 150, 2]]],
    kept: 'before',
    choice: { route: 'scuff', finish: 'dewaxed-shellac' },
    story: 'handed-over',
  },
  {
    name: 'Blanket box',
    client: ['Nils Ekbom', 'nils@example.invalid'],
    begun: 17,
    faces: [
      ['lid', 'outside', 'flat', 'horizontal', '1100', '480', 1, 'elm'],
      ['body', 'sides', 'flat', 'vertical', '1100', '460', 2, 'elm'],
      ['body', 'ends', 'flat', 'vertical', '480', '460', 2, 'elm'],
    ],
    more: { period: '1925-1960', refinished: 'no', lead: 'no', keepPatina: true },
    tests: lacquer,
    findings: [
      [0, 'worn-through', 4, 'mend', ['area', 380, 90, 760, 330]],
      [0, 'crazing', 3, 'mend', ['face']],
    ],
    kept: 'before',
    after: 'Lid after four coats of oil',
    choice: { route: 'strip-chemical', finish: 'varnish-oil' },
    story: 'ready',
  },
  {
    name: 'Tall clock case',
    client: ['Vera Stjernlund', 'vera@example.invalid'],
    begun: 11,
    faces: [
      ['door', 'outside', 'flat', 'vertical', '1250', '300', 1, 'mahogany', '1.2'],
      ['hood', 'moulding', 'profiled', 'vertical', '900', '60', 2, 'mahogany'],
    ],
    more: { period: '1850-1925', lead: 'no', sheen: 'gloss', use: 'display' },
    tests: shellac,
    findings: [
      [0, 'crazing', 4],
      [1, 'several-layers', 3],
    ],
    choice: { route: 'strip-chemical', finish: 'nitrocellulose-lacquer' },
    story: 'curing',
  },
  {
    name: 'Pharmacy shelf',
    client: ['Otto Wikner', 'otto@example.invalid'],
    begun: 7,
    faces: [
      ['shelves', 'top', 'flat', 'horizontal', '1400', '260', 5, 'birch'],
      ['sides', 'outside', 'flat', 'vertical', '1900', '260', 2, 'birch'],
    ],
    more: { period: '1925-1960', refinished: 'no', lead: 'no' },
    tests: varnish,
    findings: [
      [0, 'runs', 3],
      [1, 'brush-marks', 3],
    ],
    choice: { route: 'level-barrier-recoat', finish: 'waterborne-polyurethane' },
    story: 'gate-failed',
  },
  {
    name: 'Map chest, eight drawers',
    client: ['Harbour Museum Society', 'museum@example.invalid'],
    begun: 4,
    faces: [
      ['top', 'outside', 'flat', 'horizontal', '1180', '840', 1, 'oak'],
      ['drawer fronts', 'front', 'flat', 'vertical', '1120', '95', 8, 'oak'],
      ['sides', 'outside', 'flat', 'vertical', '840', '900', 2, 'oak'],
    ],
    more: { period: '1925-1960', refinished: 'no', lead: 'no', use: 'hard' },
    tests: varnish,
    findings: [
      [0, 'peeling', 3, 'mend', ['area', 40, 30, 430, 260], 'lifts with tape'],
      [0, 'black-ring', 3, 'mend', ['area', 700, 420, 830, 550]],
      [0, 'black-ring', 2, 'mend', ['area', 860, 300, 960, 400]],
      [1, 'scratches', 2, 'mend', ['line', 120, 20, 640, 60, 2, 3]],
      [2, 'dents', 2, 'keep', ['point', 300, 700, 18, 1]],
      [1, 'nail-holes', 2, 'mend', ['point', 560, 48, 4, 5]],
    ],
    walk: [
      ['stood-where', 'heated'],
      ['raking-light|top', 'peeling', 'black-ring'],
      ['raking-light|drawer fronts', 'scratches'],
      ['raking-light|sides', 'dents'],
      ['touch', 'nothing'],
      ['smell', 'nothing'],
      ['water-sign', 'spreads'],
      ['rag', 'clean'],
      ['layers-at-chip|top', 'one'],
      ['layers-at-chip|drawer fronts', 'one'],
      ['layers-at-chip|sides', 'none'],
      ['insides', 'nothing'],
      ['makers-mark', 'yes'],
      ['hardware', 'missing'],
      ['joints', 'nothing'],
      ['meter', 'taken'],
    ],
    moisture: [[0, 9.4, '22', 4]],
    items: [
      {
        name: 'cup pull',
        count: 15,
        set: 'pulls',
        place: ['bag', 'BAG-12'],
        out: 15,
        holes: { centres_mm: [0, 64], diameter_mm: 4, plate_w_mm: 92, plate_h_mm: 38 },
      },
      {
        name: 'pull of drawer 6, right',
        state: 'missing',
        set: 'pulls',
        holes: { centres_mm: [0, 64], diameter_mm: 4, plate_w_mm: 92, plate_h_mm: 38 },
        ask: 'One of the sixteen pulls is gone.',
      },
      { name: 'drawer', kind: 'part', count: 8, set: 'drawers', place: ['rack', 'RACK-3'], out: 8 },
      { name: 'stamp inside drawer 1', kind: 'mark', note: 'pencilled inventory number' },
    ],
    patches: [
      { face: 0, method: 'stripper', minutes: 1.5, result: 'all-off', note: 'two rounds of scraping' },
      { face: 0, method: 'sanding', minutes: 2.5, result: 'nearly', note: 'paper clogs' },
    ],
    kept: 'before',
    choice: { route: 'strip-chemical', finish: 'waterborne-polyurethane' },
    story: 'dwelling',
  },
  {
    name: 'Lectern',
    client: ['Parish of Sandnäs', 'parish@example.invalid'],
    begun: 11,
    faces: [
      ['desk', 'face', 'flat', 'horizontal', '620', '480', 1, 'oak'],
      ['column', 'faces', 'profiled', 'vertical', '1050', '520', 1, 'oak'],
    ],
    more: { period: '1850-1925', lead: 'no', age: 'keep' },
    tests: shellac,
    findings: [
      [0, 'worn-through', 4],
      [1, 'dirt-and-wax', 2],
    ],
    choice: { route: 'strip-chemical', finish: 'varnish-oil' },
    story: 'oil-on',
  },
  {
    name: 'Linen press',
    client: ['Maja Hedvall', 'maja@example.invalid'],
    begun: 6,
    faces: [
      ['doors', 'outside', 'flat', 'vertical', '980', '460', 2, 'pine'],
      ['sides', 'outside', 'flat', 'vertical', '1700', '420', 2, 'pine'],
    ],
    more: { period: '1850-1925', lead: 'no', tone: 'darker' },
    tests: shellac,
    findings: [
      [0, 'worn-through', 3],
      [0, 'dents', 2, 'keep'],
    ],
    choice: { route: 'strip-chemical', finish: 'dewaxed-shellac', colour: 'pigment-stain' },
    story: 'conditioned',
  },
  {
    name: 'Specimen cabinet, 24 drawers',
    client: ['Lake School', 'school@example.invalid'],
    begun: 8,
    faces: [
      ['doors', 'outside', 'flat', 'vertical', '820', '410', 2, 'birch', '0.6'],
      ['top', 'outside', 'flat', 'horizontal', '900', '420', 1, 'birch', '0.6'],
    ],
    more: { period: '1960-1990', lead: 'no', refinished: 'no' },
    tests: [
      ['lacquer-thinner-drop', 'dissolves'],
      ['alcohol-drop', 'softens'],
      ['scrape', 'powder'],
    ],
    findings: [
      [0, 'light-bleached', 3],
      [1, 'white-ring', 3],
    ],
    choice: { route: 'strip-chemical', finish: 'waterborne-polyurethane' },
    story: 'drying',
  },
  {
    name: 'Bookcase, glazed',
    client: ['Arvid Tornell', 'arvid@example.invalid'],
    begun: 4,
    faces: [
      ['front frame', 'outside', 'flat', 'vertical', '1900', '420', 1, 'walnut'],
      ['sides', 'outside', 'flat', 'vertical', '1900', '320', 2, 'walnut'],
    ],
    more: { period: '1925-1960', refinished: 'no', lead: 'no' },
    tests: varnish,
    findings: [[0, 'runs', 3]],
    choice: { route: 'level-barrier-recoat', finish: 'dewaxed-shellac' },
    story: 'gate-open',
  },
  {
    name: 'Umbrella stand',
    client: ['Hotel Strandgården', 'hotel@example.invalid'],
    begun: 7,
    faces: [
      ['body', 'slats', 'flat', 'vertical', '700', '60', 12, 'ash'],
      ['feet', 'round', 'turned', 'vertical', '90', '60', 4, 'ash'],
    ],
    more: { period: '1960-1990', lead: 'no', use: 'hard' },
    tests: lacquer,
    findings: [[0, 'worn-through', 4]],
    choice: { route: 'strip-chemical', finish: 'nitrocellulose-lacquer' },
    story: 'lacquer-next',
  },
  {
    name: 'Nursery cupboard, painted',
    client: ['Lisen Brandt', 'lisen@example.invalid'],
    begun: 3,
    faces: [
      ['doors', 'outside', 'flat', 'vertical', '900', '420', 2, 'pine'],
      ['body', 'sides', 'flat', 'vertical', '1100', '400', 2, 'pine'],
    ],
    more: { period: '1925-1960', lead: 'unknown' },
    tests: [
      ['look', 'opaque'],
      ['lacquer-thinner-drop', 'wrinkles'],
      ['scrape', 'powder'],
    ],
    findings: [
      [0, 'old-paint', 4, 'mend', ['face']],
      [0, 'several-layers', 4, 'mend', ['face']],
      [1, 'peeling', 3, 'mend', ['area', 700, 40, 1090, 360, 0, 1]],
    ],
    choice: { route: 'strip-chemical', finish: 'waterborne-polyurethane' },
    story: 'approved',
  },
  {
    name: 'Church pew, short',
    client: ['Parish of Sandnäs', 'parish@example.invalid'],
    begun: 3,
    faces: [
      ['seat', 'top', 'flat', 'horizontal', '1600', '380', 1, 'pine'],
      ['back', 'front', 'flat', 'vertical', '1600', '520', 1, 'pine'],
      ['ends', 'outside', 'carved', 'vertical', '950', '420', 2, 'pine'],
    ],
    more: { period: '1850-1925', lead: 'no', tone: 'darker' },
    tests: [...shellac, ['uv-lamp', 'orange']],
    findings: [
      [0, 'scratches', 3],
      [1, 'scratches', 2],
    ],
    choice: { route: 'scuff', finish: 'dewaxed-shellac', colour: 'gel-stain' },
    words: 'The seat is worn but the film holds. Gel stain hides the scratches and keeps the age.',
    story: 'asked',
  },
  {
    name: 'Hat stand',
    client: ['Ebba Lindalm', 'ebba@example.invalid'],
    begun: 2,
    faces: [
      ['column', 'round', 'turned', 'vertical', '1800', '55', 1, 'beech'],
      ['arms', 'round', 'turned', 'vertical', '300', '25', 6, 'beech'],
    ],
    more: { period: '1850-1925', lead: 'no' },
    tests: shellac,
    findings: [[0, 'scratches', 2]],
    choice: { route: 'scuff', finish: 'dewaxed-shellac' },
    words: 'A light coat of shellac would be enough.',
    story: 'asked-question',
  },
  {
    name: 'Writing slope',
    client: ['Karl Ottoson', ''],
    begun: 1,
    faces: [['lid', 'outside', 'flat', 'horizontal', '15 3/4 in', '10 1/2 in', 1, 'walnut', '1/32 in']],
    more: { period: '1850-1925', lead: 'no', keepPatina: true },
    tests: [
      ['look', 'thin, clear'],
      ['white-spirit-rub', 'comes off'],
    ],
    findings: [
      [0, 'dirt-and-wax', 3, 'mend', ['face']],
      [0, 'white-ring', 2, 'mend', ['area', 240, 90, 310, 160]],
    ],
    walk: [
      ['stood-where', 'heated'],
      ['raking-light|lid', 'white-ring'],
      ['sander-marks', 'nothing'],
      ['touch', 'nothing'],
      ['smell', 'oil'],
      ['water-sign', 'spreads'],
    ],
  },
  {
    name: 'Folding screen',
    client: ['Signe Malmros', 'signe@example.invalid'],
    begun: 0,
    faces: [['panels', 'frame', 'profiled', 'vertical', '1700', '120', 6, 'unknown']],
    more: { period: 'unknown', lead: 'unknown' },
  },
  {
    name: 'Sea chest',
    client: ['Rut Havberg', 'rut@example.invalid'],
    begun: 6,
    faces: [
      ['lid', 'outside', 'flat', 'horizontal', '980', '460', 1, 'elm'],
      ['body', 'front', 'flat', 'vertical', '960', '420', 1, 'elm'],
      ['body', 'ends', 'flat', 'vertical', '440', '420', 2, 'elm'],
      ['feet', 'turned', 'turned', 'vertical', '90', '95', 4, 'pine'],
    ],
    more: { period: 'before-1850', lead: 'no', keepPatina: true, note: 'Stood in a boathouse for thirty years.' },
    tests: [
      ['look', 'no film'],
      ['white-spirit-rub', 'comes off'],
      ['scrape', 'waxy'],
    ],
    findings: [
      [0, 'crack', 3, 'mend', ['line', 60, 210, 820, 225, 3], 'open right through'],
      [1, 'mould', 2, 'mend', ['area', 40, 300, 330, 410]],
      [1, 'woodworm', 3, 'mend', ['area', 640, 40, 860, 180], 'old holes, no dust'],
      [2, 'open-joint', 3, 'mend', ['line', 10, 10, 10, 400, 2, 1]],
      [0, 'dents', 2, 'keep', ['point', 300, 120, 22]],
    ],
    walk: [
      ['stood-where', 'attic'],
      ['worm', 'unknown'],
      ['raking-light|lid', 'dents'],
      ['raking-light|body', 'nothing'],
      ['raking-light|feet', 'nothing'],
      ['touch', 'nothing'],
      ['smell', 'musty'],
      ['water-sign', 'soaks'],
      ['worn-or-open', 'everywhere'],
      ['insides', 'woodworm', 'mould'],
      ['fresh-dust', 'old'],
      ['ivory-inlay', 'none'],
      ['makers-mark', 'yes'],
      ['hardware', 'mismatched'],
      ['joints', 'open-joint', 'crack'],
      ['crack-moves', 'yes'],
      ['meter', 'taken'],
    ],
    moisture: [
      [0, 19.5, '24', 6],
      [0, 16.5, '24', 0],
    ],
    items: [
      {
        name: 'lock plate',
        state: 'mismatched',
        holes: { centres_mm: [0, 52], diameter_mm: 3.5, plate_w_mm: 70, plate_h_mm: 46 },
        note: 'newer brass; a larger shadow lies beneath',
      },
      { name: 'painted initials under the lid', kind: 'mark' },
    ],
  },
  {
    name: "Collector's cabinet",
    client: ['Lake School', 'school@example.invalid'],
    begun: 2,
    faces: [
      ['doors', 'outside', 'flat', 'vertical', '1180', '520', 2, 'walnut', ''],
      ['plinth', 'front', 'profiled', 'horizontal', '1100', '120', 1, 'beech'],
      ['feet', 'turned', 'turned', 'vertical', '140', '70', 4, 'beech'],
      ['inside', 'back', 'flat', 'vertical', '1120', '1000', 1, 'pine'],
    ],
    more: { period: '1850-1925', lead: 'no', refinished: 'yes', use: 'display', note: "Held birds' eggs." },
    groups: { 1: 'B', 2: 'B' },
    tests: [
      ['look', 'thick, plastic', 'A', 1],
      ['scrape', 'curls', 'A', 1],
      ['lacquer-thinner-drop', 'nothing', 'A', 1],
      ['alcohol-drop', 'sticky', 'A', 2],
      ['uv-lamp', 'orange', 'A', 2],
      ['alcohol-drop', 'sticky', 'B', 1],
      ['scrape', 'curls', 'B', 1],
      ['look', 'thick, plastic', 'B', 1],
      ['lacquer-thinner-drop', 'nothing', 'B', 1],
    ],
    findings: [
      [0, 'several-layers', 3, 'mend', ['face']],
      [0, 'veneer-lifted', 3, 'mend', ['area', 20, 400, 160, 510, 0, 1]],
      [0, 'veneer-chipped', 3, 'mend', ['point', 1150, 505, 14, 2]],
      [0, 'scratches', 2, 'tolerate', ['line', 300, 80, 720, 240, 2, 2]],
    ],
    walk: [
      ['stood-where', 'collection'],
      ['raking-light|doors', 'scratches'],
      ['layers-at-chip|doors', 'several'],
      ['lowest-layer', 'clear'],
      ['insides', 'powder', 'mirror'],
      ['mirror-back', 'closed'],
      ['hardware', 'complete'],
    ],
    items: [
      { name: 'door hinge', count: 4, place: ['box', 'BOX-5'], out: 4 },
      { name: 'key', place: ['bag', 'BAG-12'], out: 1 },
    ],
  },
  {
    name: 'Serving table',
    client: ['Hotel Strandgården', 'hotel@example.invalid'],
    begun: 1,
    faces: [
      ['top', 'upper', 'flat', 'horizontal', '1240', '520', 1, 'ash'],
      ['shelf', 'upper', 'flat', 'horizontal', '1100', '420', 1, 'ash'],
      ['legs', 'turned', 'turned', 'vertical', '720', '52', 4, 'beech'],
      ['frieze', 'painted', 'flat', 'vertical', '1120', '110', 2, 'beech'],
    ],
    alone: ['frieze'],
    more: { period: '1925-1960', lead: 'no', refinished: 'no', use: 'hard' },
    tests: varnish,
    findings: [
      [0, 'worn-through', 4, 'mend', ['area', 200, 80, 1020, 430]],
      [0, 'dents', 2, 'mend', ['point', 330, 260, 12]],
      [1, 'scratches', 2],
      [2, 'scratches', 2, 'mend', ['face']],
    ],
    choice: { route: 'strip-chemical', finish: 'oil-polyurethane' },
    own: { faces: [2], route: 'scuff', finish: 'oil-polyurethane' },
    words: 'Top and shelf to the wood, legs coated over; the painted frieze stays.',
    story: 'asked',
  },
  {
    name: 'Five chairs to match an old one',
    client: ['Inga-Lill Fors', 'ingalill@example.invalid'],
    begun: 9,
    faces: [
      ['seats', 'upper', 'flat', 'horizontal', '420', '400', 5, 'beech'],
      ['backs', 'front', 'flat', 'vertical', '380', '120', 5, 'beech'],
      ['old chair', 'seat', 'flat', 'horizontal', '420', '400', 1, 'beech'],
    ],
    more: { period: '1925-1960', lead: 'no', refinished: 'no', tone: 'match' },
    alone: ['old chair'],
    tests: varnish,
    findings: [
      [0, 'worn-through', 3],
      [1, 'scratches', 2],
    ],
    choice: { route: 'strip-chemical', finish: 'waterborne-polyurethane', colour: 'water-dye' },
    words: 'We match the five seats to your old chair and show you a finished band first.',
    story: 'dyed',
  },
  {
    name: 'Sewing table',
    client: ['Arvid Tornell', 'arvid@example.invalid'],
    begun: 1,
    faces: [
      ['drawer front', 'outside', 'flat', 'vertical', '480', '140', 1, 'beech'],
      ['top', 'upper', 'flat', 'horizontal', '620', '420', 1, 'beech'],
    ],
    more: { period: '1960-1990', lead: 'no', tone: 'match' },
    alone: ['top'],
    tests: lacquer,
    findings: [[0, 'light-bleached', 3]],
    choice: { route: 'strip-chemical', finish: 'waterborne-polyurethane', colour: 'water-dye' },
    story: 'asked',
  },
  {
    name: 'Hall bench',
    client: ['Hotel Strandgården', 'hotel@example.invalid'],
    begun: 1,
    faces: [['seat', 'upper', 'flat', 'horizontal', '1500', '380', 1, 'walnut']],
    more: { period: '1960-1990', lead: 'no', tone: 'lighter' },
    tests: lacquer,
    findings: [[0, 'scratches', 3]],
  },
]

/** Loaded last, so that the others keep their numbers. */
export const LAST: readonly DemoPiece[] = [
  {
    name: 'Coat rail',
    client: ['Hotel Strandgården', 'hotel@example.invalid'],
    begun: 7,
    faces: [['rail', 'outside', 'flat', 'vertical', '1400', '120', 1, 'ash']],
    more: { period: '1960-1990', lead: 'no', use: 'hard' },
    tests: lacquer,
    findings: [[0, 'worn-through', 1]],
    choice: { route: 'strip-chemical', finish: 'nitrocellulose-lacquer' },
    story: 'lacquer-next',
  },
  {
    name: 'Plant table',
    client: ['Hotel Strandgården', 'hotel@example.invalid'],
    begun: 4,
    faces: [['top', 'upper', 'flat', 'horizontal', '600', '400', 1, 'ash']],
    more: { period: '1960-1990', lead: 'no', use: 'hard' },
    tests: lacquer,
    findings: [[0, 'worn-through', 2]],
    choice: { route: 'strip-chemical', finish: 'oil-polyurethane' },
    story: 'drying',
  },
  {
    name: 'Low shelf',
    client: ['Ida Rosén', 'ida@example.invalid'],
    begun: 5,
    faces: [['shelf', 'upper', 'flat', 'horizontal', '900', '260', 1, 'oak']],
    more: { period: '1960-1990', lead: 'no', use: 'daily' },
    tests: lacquer,
    findings: [[0, 'worn-through', 1]],
    choice: { route: 'strip-chemical', finish: 'wiping-varnish' },
    story: 'drying',
  },
]

/** A place as the API takes it. */
export function placeOf(p: DemoPlace | undefined, copies: number) {
  const none = { shape: 'unplaced', copy: 0, x_mm: 0, y_mm: 0, x2_mm: 0, y2_mm: 0, size_mm: 0 }
  if (!p) return none
  if (p[0] === 'face') return { ...none, shape: 'face', copy: p[1] ?? 0 }
  if (p[0] === 'point') return { ...none, shape: 'point', x_mm: p[1], y_mm: p[2], size_mm: p[3], copy: p[4] ?? 1 }
  return {
    ...none,
    shape: p[0],
    x_mm: p[1],
    y_mm: p[2],
    x2_mm: p[3],
    y2_mm: p[4],
    size_mm: p[5] ?? 0,
    copy: Math.min(copies, p[6] ?? 1),
  }
}

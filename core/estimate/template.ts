/** Faces of the usual kinds of furniture from their outer sizes: enough to reckon with before a piece was measured. */
import type { Shape } from '../units'

export const PIECE_KINDS = [
  ...(['table', 'desk', 'chair', 'armchair', 'stool', 'bench', 'chest-of-drawers', 'cabinet', 'wardrobe'] as const),
  ...(['bookcase', 'bed', 'box', 'frame', 'door'] as const),
] as const
export type PieceKind = (typeof PIECE_KINDS)[number]

/** mm */
export interface OuterSize {
  length: number
  width: number
  height: number
}
export interface TemplateFace {
  part: string
  name: string
  shape: Shape
  orientation: 'horizontal' | 'vertical'
  rank: 'show' | 'secondary'
  length_mm: number
  width_mm: number
  count: number
}

const size = (length: number, width: number, height: number): OuterSize => ({ length, width, height })
/** What a piece of its kind usually measures, until it is measured itself (common practice). */
export const USUAL_SIZE: Readonly<Record<PieceKind, OuterSize>> = {
  ...{ table: size(1600, 850, 740), desk: size(1300, 650, 760), chair: size(450, 480, 880) },
  ...{ armchair: size(650, 650, 850), stool: size(400, 400, 450), bench: size(1400, 450, 850) },
  ...{ 'chest-of-drawers': size(1000, 500, 850), 'cabinet': size(1000, 450, 1400), 'wardrobe': size(1200, 600, 1900) },
  ...{ bookcase: size(900, 300, 1800), bed: size(2000, 950, 900), box: size(800, 450, 450) },
  ...{ frame: size(800, 30, 600), door: size(850, 40, 2000) },
}

/** Usual sections of members, mm (shop default, unsourced). */
const LEG = 55
const RAIL = 90
const EDGE = 25
const SLAT = 60

type More = Partial<Pick<TemplateFace, 'shape' | 'orientation' | 'rank' | 'count'>>
/** What runs round a piece is measured in stretches of so many mm at most. */
const LONGEST = 2500
function face(part: string, name: string, length_mm: number, width_mm: number, more: More = {}): TemplateFace {
  const stretches = Math.ceil(length_mm / LONGEST)
  return {
    ...{ part, name, width_mm: Math.max(1, Math.round(width_mm)) },
    length_mm: Math.max(1, Math.round(length_mm / stretches)),
    ...({ shape: 'flat', orientation: 'vertical', rank: 'show' } as const),
    ...more,
    count: (more.count ?? 1) * stretches,
  }
}
const flat = { orientation: 'horizontal' } as const
const legs = (h: number, count = 4, more: More = {}) => face('legs', 'all sides', h, LEG * 4, { count, ...more })
const top = ({ length, width }: OuterSize) => [
  face('top', 'upper', length, width, flat),
  face('top', 'edges', 2 * (length + width), EDGE, { shape: 'profiled' }),
]
const carcase = ({ length, width, height }: OuterSize) => [
  face('sides', 'outside', height, width, { count: 2 }),
  face('top', 'upper', length, width, flat),
]
const seat = ({ length, width }: OuterSize) => face('seat', 'upper', length, width, flat)
/** Chairs: so much of the height lies under the seat (shop default, unsourced). */
const UNDER_SEAT = 0.5

const TEMPLATES: Record<PieceKind, (s: OuterSize) => TemplateFace[]> = {
  'table': s => [...top(s), face('apron', 'outside', 2 * (s.length + s.width) * 0.85, RAIL), legs(s.height)],
  'desk': s => [
    ...top(s),
    face('pedestals', 'outside', s.height, s.width, { count: 4 }),
    face('drawers', 'fronts', s.length * 0.3, s.height * 0.2, { count: 6 }),
  ],
  'chair': s => [
    seat(s),
    legs(s.height * UNDER_SEAT),
    face('back', 'posts', s.height * UNDER_SEAT, LEG * 4, { count: 2 }),
    face('back', 'slats', s.length, SLAT * 2, { count: 3 }),
    face('rails', 'all sides', 2 * (s.length + s.width), SLAT * 2, { rank: 'secondary' }),
  ],
  'armchair': s => [
    ...TEMPLATES.chair(s),
    face('arms', 'all round', s.width, LEG * 4, { count: 2, shape: 'profiled' }),
  ],
  'stool': s => [seat(s), legs(s.height), face('rails', 'all sides', s.length + s.width, SLAT * 2)],
  'bench': s => [seat(s), legs(s.height * UNDER_SEAT), face('back', 'both sides', s.length, s.height, { count: 1 })],
  'chest-of-drawers': s => [
    ...carcase(s),
    face('drawers', 'fronts', s.length, s.height * 0.22, { count: Math.max(2, Math.round(s.height / 230)) }),
  ],
  'cabinet': s => [...carcase(s), face('doors', 'outside', s.height, s.length / 2, { count: 2 })],
  'wardrobe': s => [
    ...carcase(s),
    face('doors', 'outside', s.height, s.length / 2, { count: 2 }),
    face('cornice', 'front and ends', s.length + 2 * s.width, RAIL, { shape: 'profiled' }),
  ],
  'bookcase': s => [
    ...carcase(s),
    face('shelves', 'upper', s.length, s.width, {
      ...flat,
      rank: 'secondary',
      count: Math.max(1, Math.round(s.height / 350)),
    }),
    face('sides', 'inside', s.height, s.width, { count: 2, rank: 'secondary' }),
  ],
  'bed': s => [
    face('headboard', 'both sides', s.width, s.height, { count: 2 }),
    face('footboard', 'both sides', s.width, s.height * UNDER_SEAT, { count: 2 }),
    face('rails', 'outside', s.length, RAIL * 2, { count: 2 }),
  ],
  'box': s => [
    face('lid', 'upper', s.length, s.width, flat),
    face('body', 'front and back', s.length, s.height, { count: 2 }),
    face('body', 'ends', s.width, s.height, { count: 2 }),
  ],
  'frame': s => [face('frame', 'front', 2 * (s.length + s.height), RAIL, { shape: 'profiled' })],
  'door': s => [face('door', 'both sides', s.height, s.length, { count: 2 })],
}
/** Its faces, each positive in size; whole pieces alone, several alike are counted by whoever asks. */
export const templateOf = (kind: PieceKind, size: OuterSize): TemplateFace[] => TEMPLATES[kind](size)

/** How its surface looks, from what a client can tell, as findings on every face (kind and grade 1 to 5). */
export const CONDITIONS = ['sound', 'dull', 'worn', 'failing', 'bare'] as const
export type Condition = (typeof CONDITIONS)[number]
export const FOUND_IN: Record<
  Condition,
  readonly (readonly ['scratches' | 'worn-through' | 'peeling' | 'dirt-and-wax', number])[]
> = {
  sound: [],
  dull: [
    ['dirt-and-wax', 2],
    ['scratches', 2],
  ],
  worn: [['worn-through', 3]],
  failing: [['peeling', 4]],
  bare: [],
}

/** Where a finding lies on a face. Positions in mm from the face's corner: x along its length, y across its width. */
import { type Geom, intersection, union } from 'polyclip-ts'
import { CARVED_FACTOR } from '../units'
import type { Face } from './face'

export type PlaceShape = 'unplaced' | 'point' | 'line' | 'area' | 'face'

/** Corners of a figure, mm; the first ring is the outer one. */
export type Outline = [number, number][][]

/** `size_mm`: a point's diameter or a line's width. `copy` 1… says which of the face's copies, 0 all of them. */
export interface Place {
  shape: PlaceShape
  copy: number
  x_mm: number
  y_mm: number
  x2_mm: number
  y2_mm: number
  size_mm: number
}

export const UNPLACED: Place = { shape: 'unplaced', copy: 0, x_mm: 0, y_mm: 0, x2_mm: 0, y2_mm: 0, size_mm: 0 }
export const wholeFace = (copy = 0): Place => ({ ...UNPLACED, shape: 'face', copy })

export type Sized = Pick<Face, 'shape' | 'length_mm' | 'width_mm' | 'copies'>

/** The face as it is drawn: a turned one unrolled, so that its width is the way round. */
export const outline_mm = (face: Sized): { w: number; h: number } => ({
  w: face.length_mm,
  h: face.shape === 'turned' ? Math.PI * face.width_mm : face.width_mm,
})

/** Why this place cannot be on this face, or null. Words for a restorer. */
export function placeProblem(place: Place, face: Sized): string | null {
  if (place.shape === 'unplaced') return null
  if (!Number.isInteger(place.copy) || place.copy < 0 || place.copy > face.copies)
    return `There ${face.copies === 1 ? 'is one' : `are ${face.copies}`} of this face.`
  if (place.shape === 'face') return null
  const { w, h } = outline_mm(face)
  const inside = (x: number, y: number) => x >= -0.5 && y >= -0.5 && x <= w + 0.5 && y <= h + 0.5
  if (!inside(place.x_mm, place.y_mm)) return 'This place is off the face.'
  if (place.shape !== 'point' && !inside(place.x2_mm, place.y2_mm)) return 'The other end is off the face.'
  if (!(place.size_mm >= 0) || place.size_mm > Math.max(w, h)) return 'It cannot be wider than the face.'
  if (place.shape === 'line' && place.x_mm === place.x2_mm && place.y_mm === place.y2_mm)
    return 'A line needs two different ends.'
  if (place.shape === 'area' && (place.x_mm === place.x2_mm || place.y_mm === place.y2_mm))
    return 'An area needs two opposite corners.'
  return null
}

/** The place moved by (dx, dy), kept on the face. */
export function movePlace(place: Place, dx_mm: number, dy_mm: number, face: Sized): Place {
  if (place.shape === 'face' || place.shape === 'unplaced') return place
  const { w, h } = outline_mm(face)
  const two = place.shape !== 'point'
  const within = (d: number, low: number, high: number, most: number) => Math.min(Math.max(d, -low), most - high)
  const dx = within(
    dx_mm,
    two ? Math.min(place.x_mm, place.x2_mm) : place.x_mm,
    two ? Math.max(place.x_mm, place.x2_mm) : place.x_mm,
    w,
  )
  const dy = within(
    dy_mm,
    two ? Math.min(place.y_mm, place.y2_mm) : place.y_mm,
    two ? Math.max(place.y_mm, place.y2_mm) : place.y_mm,
    h,
  )
  return {
    ...place,
    x_mm: place.x_mm + dx,
    y_mm: place.y_mm + dy,
    x2_mm: two ? place.x2_mm + dx : place.x2_mm,
    y2_mm: two ? place.y2_mm + dy : place.y2_mm,
  }
}

const ROUND_SIDES = 48
/** A many-sided figure with the area of the ellipse, not inside it. */
const ROUND_SWELL = Math.sqrt((2 * Math.PI) / ROUND_SIDES / Math.sin((2 * Math.PI) / ROUND_SIDES))

function ellipse(cx: number, cy: number, rx: number, ry: number): Outline {
  return [
    Array.from({ length: ROUND_SIDES }, (_, i): [number, number] => {
      const turn = (i / ROUND_SIDES) * 2 * Math.PI
      return [cx + rx * ROUND_SWELL * Math.cos(turn), cy + ry * ROUND_SWELL * Math.sin(turn)]
    }),
  ]
}

/** The edge of a face, mm. */
function edgeOf(face: Sized): Outline {
  const { w, h } = outline_mm(face)
  if (face.shape === 'oval') return ellipse(w / 2, h / 2, w / 2, h / 2)
  return [
    [
      [0, 0],
      [w, 0],
      [w, h],
      [0, h],
    ],
  ]
}

/** The corners of a place on its face, mm; null when it is not placed. */
export function placeOutline(place: Place, face: Sized, round: boolean): Outline | null {
  const { x_mm: x, y_mm: y, x2_mm: x2, y2_mm: y2, size_mm } = place
  switch (place.shape) {
    case 'unplaced':
      return null
    case 'face':
      return edgeOf(face)
    case 'point':
      return ellipse(x, y, size_mm / 2, size_mm / 2)
    case 'area':
      return round
        ? ellipse((x + x2) / 2, (y + y2) / 2, Math.abs(x2 - x) / 2, Math.abs(y2 - y) / 2)
        : [
            [
              [x, y],
              [x2, y],
              [x2, y2],
              [x, y2],
            ],
          ]
    case 'line': {
      const long = Math.hypot(x2 - x, y2 - y)
      const nx = ((-(y2 - y) / long) * size_mm) / 2
      const ny = (((x2 - x) / long) * size_mm) / 2
      return [
        [
          [x + nx, y + ny],
          [x2 + nx, y2 + ny],
          [x2 - nx, y2 - ny],
          [x - nx, y - ny],
        ],
      ]
    }
  }
}

const ringArea = (ring: readonly (readonly [number, number])[]) =>
  Math.abs(
    ring.reduce((sum, [x, y], i) => {
      const [x2, y2] = ring[(i + 1) % ring.length]!
      return sum + x * y2 - x2 * y
    }, 0),
  ) / 2

/** Surface that drawn mm² stand for: carved relief holds more than its outline. */
const relief = (face: Sized) => (face.shape === 'carved' ? CARVED_FACTOR : 1)

/**
 * Area covered together by places on one copy of a face, m²; what overlaps counts once, what hangs over the edge not
 * at all.
 */
export function coveredArea_m2(places: readonly { place: Place; round: boolean }[], face: Sized): number {
  const shapes = places.flatMap(({ place, round }): Geom[] => {
    const outline = placeOutline(place, face, round)
    return outline && !(place.shape !== 'area' && place.shape !== 'face' && place.size_mm <= 0) ? [outline] : []
  })
  if (shapes.length === 0) return 0
  const [first, ...rest] = shapes
  const together = intersection(union(first!, ...rest), edgeOf(face))
  const mm2 = together.reduce(
    (sum, [outer, ...holes]) => sum + ringArea(outer!) - holes.reduce((s, hole) => s + ringArea(hole), 0),
    0,
  )
  return (mm2 * relief(face)) / 1e6
}

/** Length of a line place, mm; 0 for the others. */
export const lineLength_mm = (place: Place): number =>
  place.shape === 'line' ? Math.hypot(place.x2_mm - place.x_mm, place.y2_mm - place.y_mm) : 0

/**
 * Width of the board across a crack, mm: the face measured square to the line's main direction, the grain taken along
 * it.
 */
export function boardAcross_mm(place: Place, face: Sized): number {
  const { w, h } = outline_mm(face)
  return Math.abs(place.x2_mm - place.x_mm) >= Math.abs(place.y2_mm - place.y_mm) ? h : w
}

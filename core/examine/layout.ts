/** All faces of a piece laid out by part in one box, at one scale. */
import type { Face } from '../plan/facts'
import { outline_mm } from './place'

export interface LaidFace { faceId: number, copy: number, x: number, y: number, w: number, h: number }
export interface LaidPart { part: string, x: number, y: number, w: number }
export interface Layout { px_per_mm: number, width: number, height: number, faces: LaidFace[], parts: LaidPart[] }

type LayFace = Pick<Face, 'id' | 'part' | 'shape' | 'length_mm' | 'width_mm' | 'copies'>

const GAP = 10
const LABEL = 22
const BETWEEN_PARTS = 22

/** Lays the faces in rows at a given scale; a part begins where there is room for its first face, its name above it. */
function layAt(faces: readonly LayFace[], px: number, width: number): Layout {
  const laid: LaidFace[] = []
  const parts: LaidPart[] = []
  let x = 0
  let y = LABEL
  let row = 0
  let part: LaidPart | null = null
  for (const face of faces) {
    const size = outline_mm(face)
    const w = Math.max(3, size.w * px)
    const h = Math.max(3, size.h * px)
    for (let copy = 1; copy <= face.copies; copy++) {
      const fresh = part?.part !== face.part
      const gap = x === 0 ? 0 : fresh ? BETWEEN_PARTS : GAP
      if (x > 0 && (x + gap + w > width || (fresh && x + gap + Math.max(w, 90) > width))) {
        x = 0
        y += row + LABEL + GAP
        row = 0
      }
      else { x += gap }
      if (fresh) {
        part = { part: face.part, x, y: y - 6, w: 0 }
        parts.push(part)
      }
      laid.push({ faceId: face.id, copy, x, y, w, h })
      x += w
      part!.w = Math.max(part!.w, x - part!.x)
      row = Math.max(row, h)
    }
  }
  return { px_per_mm: px, width, height: y + row, faces: laid, parts }
}

const fits = (l: Layout, width: number, height: number) => l.height <= height && l.faces.every(f => f.x + f.w <= width + 1e-6)

/** The largest scale at which everything fits into the box, by halving; one scale for all faces. */
export function layFaces(faces: readonly LayFace[], width: number, height: number): Layout {
  let low = 1e-4
  let high = 2
  for (let i = 0; i < 40; i++) {
    const middle = Math.sqrt(low * high)
    if (fits(layAt(faces, middle, width), width, height)) low = middle
    else high = middle
  }
  return layAt(faces, low, width)
}

/** A round length for the scale's mark, mm: about a quarter of the width, of 1, 2 or 5 times a power of ten. */
export function scaleMark_mm(px_per_mm: number, width: number): number {
  const wanted = width / 5 / px_per_mm
  const power = 10 ** Math.floor(Math.log10(wanted))
  return [5, 2, 1].map(n => n * power).find(n => n <= wanted)!
}

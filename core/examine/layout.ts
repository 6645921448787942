/** All faces of a piece laid out by part in one box, at one scale. */
import { type Face, outline_mm } from '../piece'

export interface LaidFace {
  faceId: number
  copy: number
  x: number
  y: number
  w: number
  h: number
}
export interface LaidPart {
  part: string
  x: number
  y: number
  w: number
}
export interface Layout {
  px_per_mm: number
  width: number
  height: number
  faces: LaidFace[]
  parts: LaidPart[]
}

type LayFace = Pick<Face, 'id' | 'part' | 'shape' | 'length_mm' | 'width_mm' | 'copies'>

const GAP = 8
const LABEL = 22
const BETWEEN_PARTS = 24
const LEAST_PX = 3
/** Blocks are tried from tall to broad; the one that lets the piece be drawn largest wins. */
const ASPECTS = [0.5, 0.9, 1.4, 2.2, 3.5, 6]

interface Block {
  part: string
  w: number
  h: number
  faces: LaidFace[]
}

/** The copies of one face in a grid: drawer fronts stack, slats stand in a row. */
function grid(face: LayFace, px: number, aspect: number): Omit<Block, 'part'> {
  const size = outline_mm(face)
  const w = Math.max(LEAST_PX, size.w * px)
  const h = Math.max(LEAST_PX, size.h * px)
  const columns = Array.from({ length: face.copies }, (_, i) => i + 1)
  const shape = (n: number) => ({ w: n * (w + GAP) - GAP, h: Math.ceil(face.copies / n) * (h + GAP) - GAP })
  const off = (n: number) => Math.abs(Math.log(shape(n).w / shape(n).h / aspect))
  const n = columns.reduce((best, c) => (off(c) < off(best) ? c : best))
  const faces = columns.map((copy, i) => ({
    faceId: face.id,
    copy,
    x: (i % n) * (w + GAP),
    y: Math.floor(i / n) * (h + GAP),
    w,
    h,
  }))
  return { ...shape(n), faces }
}

/** One part: its faces side by side. */
function blockOf(part: string, faces: readonly LayFace[], px: number, aspect: number): Block {
  const block: Block = { part, w: 0, h: 0, faces: [] }
  for (const face of faces) {
    const g = grid(face, px, aspect)
    const x = block.faces.length ? block.w + GAP : 0
    block.faces.push(...g.faces.map(f => ({ ...f, x: f.x + x })))
    block.w = x + g.w
    block.h = Math.max(block.h, g.h)
  }
  return block
}

/** Lays the parts in rows at a given scale, their names above them. */
function layAt(faces: readonly LayFace[], px: number, width: number, aspect: number): Layout {
  const laid: LaidFace[] = []
  const parts: LaidPart[] = []
  let x = 0
  let y = LABEL
  let row = 0
  for (const part of new Set(faces.map(f => f.part))) {
    const block = blockOf(
      part,
      faces.filter(f => f.part === part),
      px,
      aspect,
    )
    if (x > 0 && x + BETWEEN_PARTS + Math.max(block.w, part.length * 7) > width) {
      x = 0
      y += row + LABEL + GAP
      row = 0
    } else if (x > 0) {
      x += BETWEEN_PARTS
    }
    parts.push({ part, x, y: y - 6, w: block.w })
    laid.push(...block.faces.map(f => ({ ...f, x: f.x + x, y: f.y + y })))
    x += Math.max(block.w, part.length * 7)
    row = Math.max(row, block.h)
  }
  return { px_per_mm: px, width, height: y + row, faces: laid, parts }
}

const fits = (l: Layout, width: number, height: number) =>
  l.height <= height && l.faces.every(f => f.x + f.w <= width + 1e-6)

/** The largest scale at which everything fits into the box, by halving; one scale for all faces. */
export function layFaces(faces: readonly LayFace[], width: number, height: number): Layout {
  return ASPECTS.map(aspect => {
    let low = 1e-4
    let high = 2
    for (let i = 0; i < 30; i++) {
      const middle = Math.sqrt(low * high)
      if (fits(layAt(faces, middle, width, aspect), width, height)) low = middle
      else high = middle
    }
    return layAt(faces, low, width, aspect)
  }).reduce((best, l) => (l.px_per_mm > best.px_per_mm ? l : best))
}

/** A round length for the scale's mark, mm: about a quarter of the width, of 1, 2 or 5 times a power of ten. */
export function scaleMark_mm(px_per_mm: number, width: number): number {
  const wanted = width / 5 / px_per_mm
  const power = 10 ** Math.floor(Math.log10(wanted))
  return [5, 2, 1].map(n => n * power).find(n => n <= wanted)!
}

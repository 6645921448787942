/** Faces of a piece to one scale, with their numbered findings, as shapes. */
import { layFaces, type LaidFace, scaleMark_mm } from '../examine'
import { FINDINGS, placeOutline } from '../piece'
import type { Report, ReportFinding } from '../report'
import type { Shape } from '../section'
import { round } from '../units'
import type { PaperPart } from './paper'

const INK = '#1c211f'
const SOFT = '#505854'
const MADDER = '#a5322c'
const HIGHEST = 300
const FOOT = 26
const HEAD = 10

const px = (n: number) => round(n, 1)
const word = (x: number, y: number, text: string, more: Shape['at'] = {}): Shape => ({
  tag: 'text',
  text,
  at: { 'x': px(x), 'y': px(y), 'font-size': 8, 'fill': SOFT, ...more },
})

/** A finding on each copy that has it; its number stands on the first. What reaches over the face ends at its edge. */
function findingShapes({ faces }: Report, f: ReportFinding, laid: readonly LaidFace[], px_per_mm: number): Shape[] {
  const face = faces.find(x => x.id === f.faceId)
  const outline = face ? placeOutline(f.place, face, FINDINGS[f.kind].round) : null
  if (!outline) return []
  const on = laid.filter(l => l.faceId === f.faceId && (f.place.copy === 0 || l.copy === f.place.copy))
  return on.flatMap((l, i) => {
    const ring = (outline[0] as [number, number][]).map(([x, y]) => [
      px(l.x + Math.min(l.w, Math.max(0, x * px_per_mm))),
      px(HEAD + l.y + Math.min(l.h, Math.max(0, y * px_per_mm))),
    ])
    const d = `M${ring.map(p => p.join(' ')).join(' L')} Z`
    const area: Shape = {
      tag: 'path',
      at: { d, 'fill': MADDER, 'fill-opacity': 0.25, 'stroke': MADDER, 'stroke-width': 0.8 },
    }
    if (i > 0) return [area]
    const [x, y] = [0, 1].map(k => ring.reduce((sum, p) => sum + p[k]!, 0) / ring.length) as [number, number]
    return [
      area,
      { tag: 'rect', at: { x: px(x - 6), y: px(y - 5), width: 12, height: 10, fill: INK } },
      word(x, y + 2.8, String(f.number), { 'fill': '#ffffff', 'text-anchor': 'middle' }),
    ]
  })
}

/** @param width points */
export function facesDrawing(report: Report, width: number): PaperPart {
  const layout = layFaces(report.faces, width, HIGHEST)
  const mark = scaleMark_mm(layout.px_per_mm, width)
  const end = px(HEAD + layout.height + 8)
  const shapes: Shape[] = [
    ...layout.parts.map(p => word(p.x, HEAD + p.y - 2, p.part)),
    ...layout.faces.map((f): Shape => ({
      tag: 'rect',
      at: {
        ...{ x: px(f.x), y: px(HEAD + f.y), width: px(f.w), height: px(f.h) },
        ...{ 'fill': '#fafaf8', 'stroke': INK, 'stroke-width': 0.7 },
      },
    })),
    ...report.findings.flatMap(f => findingShapes(report, f, layout.faces, layout.px_per_mm)),
    { tag: 'path', at: { 'd': `M0 ${end} h${px(mark * layout.px_per_mm)}`, 'stroke': INK, 'stroke-width': 1.5 } },
    word(0, end + 12, `${mark} mm, one scale for all faces; turned faces are unrolled`),
  ]
  const count = report.findings.length
  const says =
    `${report.faces.length} faces of the piece to one scale, with ${count} numbered ` +
    `${count === 1 ? 'finding' : 'findings'}, told below`
  return { kind: 'drawing', says, width, height: px(HEAD + layout.height + FOOT), shapes }
}

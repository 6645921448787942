/** Drawings, colours and pictures on a paper. */
import type { PaperPart } from '../../core/papers'
import type { Shape } from '../../core/section'
import {
  type Doc,
  type Element,
  fontOf,
  heightOf,
  INK,
  LINE,
  MARGIN,
  room,
  runsOf,
  say,
  SIZE,
  SOFT,
  type Style,
  widthOf,
} from './sheet'

/** The colour that a shape is drawn in on paper: a variable's own fallback. */
const onPaper = (colour: string | number | undefined) => {
  const text = String(colour ?? 'none')
  const fallback = /^var\([^,]+,\s*([^)]+)\)$/.exec(text)?.[1]
  return text === 'none' ? null : (fallback ?? text)
}
function setWord(doc: Doc, { at, text = '' }: Shape) {
  const size = Number(at['font-size'] ?? SIZE.small)
  const turned = /translate\(([-\d.]+)[ ,]+([-\d.]+)\)(?:\s*rotate\(([-\d.]+)\))?/.exec(String(at.transform ?? ''))
  const runs = runsOf(text)
  const width = runs.reduce(
    (sum, r) => sum + doc.font(fontOf('regular', r.extended)).fontSize(size).widthOfString(r.text),
    0,
  )
  doc.save()
  if (turned) doc.translate(Number(turned[1]), Number(turned[2])).rotate(Number(turned[3] ?? 0))
  let x = Number(at.x ?? 0) - (at['text-anchor'] === 'middle' ? width / 2 : 0)
  doc.fillColor(onPaper(at.fill) ?? INK).fillOpacity(1)
  for (const r of runs) {
    doc.font(fontOf('regular', r.extended)).fontSize(size)
    doc.text(r.text, x, Number(at.y ?? 0) - size * 0.95, { lineBreak: false })
    x += doc.widthOfString(r.text)
  }
  doc.restore()
}
function setShape(doc: Doc, shape: Shape) {
  const { tag, at } = shape
  if (tag === 'text') return setWord(doc, shape)
  doc.save()
  const n = (name: string) => Number(at[name] ?? 0)
  if (tag === 'rect') doc.rect(n('x'), n('y'), n('width'), n('height'))
  else doc.path(tag === 'path' ? String(at.d) : `M${String(at.points).split(' ').join(' L')}`)
  const [fill, stroke] = [onPaper(at.fill), onPaper(at.stroke)]
  doc.fillOpacity(Number(at['fill-opacity'] ?? 1)).strokeOpacity(Number(at['stroke-opacity'] ?? 1))
  doc.lineWidth(Number(at['stroke-width'] ?? 1)).lineCap(at['stroke-linecap'] === 'round' ? 'round' : 'butt')
  const dashes = String(at['stroke-dasharray'] ?? '')
  if (dashes) doc.dash(Number(dashes.split(' ')[0]), { space: Number(dashes.split(' ')[1] ?? 4) })
  if (fill && stroke) doc.fillAndStroke(fill, stroke)
  else if (fill) doc.fill(fill)
  else doc.stroke(stroke ?? INK)
  doc.restore()
  return undefined
}
export function setDrawing(doc: Doc, root: Element, part: PaperPart & { kind: 'drawing' }) {
  const scale = Math.min(1, widthOf(doc) / part.width, (part.tallest ?? Infinity) / part.height)
  room(doc, part.height * scale)
  const top = doc.y
  root.add(
    doc.struct('Figure', { alt: part.says }, [
      () => {
        doc.save().translate(MARGIN, top).scale(scale)
        for (const shape of part.shapes) setShape(doc, shape)
        doc.restore()
      },
    ]),
  )
  doc.x = MARGIN
  doc.y = top + part.height * scale
  doc.moveDown(0.5)
}
const SWATCH = { w: 110, h: 64 }
/** Each band as a coloured field, with what belongs to it beside. */
export function setSwatches(doc: Doc, root: Element, { swatches }: PaperPart & { kind: 'swatches' }) {
  const width = widthOf(doc) - SWATCH.w - 14
  for (const s of swatches) {
    const says = s.says.join('\n')
    const head: Style = { weight: 'bold', width }
    const height = heightOf(doc, s.name, head) + heightOf(doc, says, { width, size: SIZE.small })
    room(doc, Math.max(SWATCH.h, height) + 10)
    const top = doc.y
    const left = MARGIN + SWATCH.w + 14
    root.add(
      doc.struct('Figure', { alt: `Colour of ${s.name}, ${s.colour}` }, [
        () => doc.rect(MARGIN, top, SWATCH.w, SWATCH.h).lineWidth(0.5).fillAndStroke(s.colour, LINE),
      ]),
    )
    root.add(doc.struct('H3', {}, [() => say(doc, s.name, head, { x: left, y: top })]))
    const under = top + heightOf(doc, s.name, head)
    if (says) root.add(doc.struct('P', {}, [() => say(doc, says, { width, size: SIZE.small }, { x: left, y: under })]))
    doc.x = MARGIN
    doc.y = top + Math.max(SWATCH.h, height) + 10
  }
}
const PICTURE = { h: 160, gap: 12 }
export function setPictures(doc: Doc, root: Element, { pictures }: PaperPart & { kind: 'pictures' }) {
  const w = (widthOf(doc) - PICTURE.gap) / 2
  for (let i = 0; i < pictures.length; i += 2) {
    room(doc, PICTURE.h + 30)
    const top = doc.y
    pictures.slice(i, i + 2).forEach((p, k) => {
      const x = MARGIN + k * (w + PICTURE.gap)
      const style: Style = { size: SIZE.small, colour: SOFT, width: w }
      const shown = () => doc.image(Buffer.from(p.jpeg_base64, 'base64'), x, top, { fit: [w, PICTURE.h] })
      root.add(doc.struct('Figure', { alt: p.says }, [() => void shown()]))
      root.add(doc.struct('Caption', {}, [() => say(doc, p.says, style, { x, y: top + PICTURE.h + 4 })]))
    })
    doc.x = MARGIN
    doc.y = top + PICTURE.h + 30
  }
}

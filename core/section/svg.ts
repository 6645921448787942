/** The cut as SVG text, as it is stored with what a client was shown. */
import { runsOf } from '../units'
import { type Box, cutOf, type Shape, spread } from './shapes'
import type { ColourDrawn, FilmDrawn, SurfaceDrawn } from './surface'

const escape = (text: string) =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;')
const FONT = 'Schibsted Grotesk Variable, sans-serif'
const INK = 'var(--color-ink, #1c211f)'

const written = ({ tag, at, text }: Shape): string => {
  const attributes = Object.entries(at).map(([name, value]) => ` ${name}="${escape(String(value))}"`)
  return `<${tag}${attributes.join('')}>${escape(text ?? '')}</${tag}>`
}
const word = (x: number, y: number, text: string): Shape => ({
  tag: 'text',
  text,
  at: { x, 'y': Math.round(y), 'font-size': 14, 'font-family': FONT, 'fill': INK },
})
const BOX: Box = { width: 300, height: 280, found: 100, states: false, scale: false }
const LABELS_PX = 260

export interface Labelled {
  width: number
  height: number
  /** read to whoever does not see it */
  says: string
  shapes: Shape[]
}
/** `says`: what a film or a colour is called; null: it has no label. Equal neighbours are named once. */
export function labelledCut(s: SurfaceDrawn, says: (of: FilmDrawn | ColourDrawn) => string | null): Labelled {
  const { planned, woodTop, shapes } = cutOf(s, BOX)
  const films = runsOf(planned, b => says(b.film) ?? '').map(run => {
    const top = run.at(-1)!
    return { at: (run[0]!.y + run[0]!.h + top.y) / 2, text: says(top.film) }
  })
  const colour = s.colours.slice(-1).map(c => ({ at: woodTop + 18, text: says(c) }))
  const labels = [...films, ...colour].filter(l => l.text)
  const words = spread(labels).map(l => word(BOX.width + 10, l.at, l.text ?? ''))
  const foot = word(4, BOX.height + 18, `${s.species} · found left, planned right`)
  return {
    width: BOX.width + LABELS_PX,
    height: BOX.height + 26,
    says: `Section: found and planned layers on ${s.species}`,
    shapes: [...shapes, ...words, foot],
  }
}
/** The cut with its labels, as SVG text. */
export function surfaceSvg(s: SurfaceDrawn, says: (of: FilmDrawn | ColourDrawn) => string | null): string {
  const cut = labelledCut(s, says)
  return (
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${cut.width} ${cut.height}" role="img" ` +
    `aria-label="${escape(cut.says)}">${cut.shapes.map(written).join('')}</svg>`
  )
}

/**
 * The cut as shapes in a box: pores open or filled, colour as depth in the wood, films to one stated scale, the line of
 * the surface from matt to gloss. Whoever shows it adds words and touch.
 */
import { layerFill } from './fills'
import type { ColourDrawn, FilmDrawn, SurfaceDrawn } from './surface'

/** One shape of SVG: its tag, its attributes, and the film or colour that it stands for. */
export interface Shape {
  tag: 'rect' | 'path' | 'polyline' | 'text'
  at: Readonly<Record<string, string | number>>
  text?: string
  of?: FilmDrawn | ColourDrawn
}
export interface Band {
  y: number
  h: number
  film: FilmDrawn
}
export interface Cut {
  pxPerUm: number
  mark_um: number
  woodTop: number
  /** where what is planned begins, from the left */
  left: number
  found: Band[]
  planned: Band[]
  shapes: Shape[]
}
export interface Box {
  width: number
  height: number
  /** px for what was found */
  found: number
  /** are planned layers drawn paler than those that lie there? */
  states: boolean
  /** false: it is not said how thick a film is */
  scale?: boolean
}

const INK = 'var(--color-ink, #1c211f)'
const MADDER = 'var(--color-madder, #9e2b25)'
const MARKS_UM = [10, 20, 50, 100, 200, 500]
const GAP = 30
/** How the line of the surface runs: crisp where it is gloss, broken where it is matt. */
const ROUGH: Record<SurfaceDrawn['sheen'], number> = { 'matt': 2.4, 'satin': 1.3, 'semi-gloss': 0.6, 'gloss': 0 }
const COLOUR_DEPTH = 46
const COLOUR_STEPS = 6

interface Pore {
  x: number
  r: number
  h: number
}
function poresIn({ pores }: SurfaceDrawn, width: number): Pore[] {
  const count = pores === 'open' ? Math.max(3, Math.round(width / 44)) : 0
  return Array.from({ length: count }, (_, i) => ({
    x: (width * (i + 0.5)) / count + ((i * 7) % 9) - 4,
    r: 4 + ((i * 5) % 3),
    h: 20 + ((i * 13) % 26),
  }))
}
const px = (n: number) => Math.round(n * 10) / 10

/** Year rings as they run through the cut, and the fibres that stand up after water. */
function woodOf(s: SurfaceDrawn, { width, height }: Box, woodTop: number): Shape[] {
  const ring = (i: number): Shape => {
    const y = woodTop + 10 + i * 14 + ((i * 37) % 9)
    const bend = ((i * 53) % 21) - 10
    const d = `M0 ${y} C${px(width * 0.3)} ${y + bend} ${px(width * 0.6)} ${y - bend} ${width} ${y + bend / 2}`
    const at = { d, 'fill': 'none', 'stroke': '#3a2412', 'stroke-opacity': i % 3 ? 0.1 : 0.24, 'stroke-width': 1.6 }
    return { tag: 'path', at }
  }
  const rings = Array.from({ length: Math.max(0, Math.floor((height - woodTop - 18) / 14)) }, (_, i) => ring(i))
  return [{ tag: 'rect', at: { x: 0, y: woodTop, width, height: height - woodTop, fill: s.tone } }, ...rings]
}
/** Colour that fades with its depth, then the pores over it. */
function inWood(s: SurfaceDrawn, pores: readonly Pore[], { width, height }: Box, left: number, woodTop: number) {
  const colour = s.colours.at(-1)
  const depth = Math.min(COLOUR_DEPTH, height - woodTop)
  const pale = colour?.state === 'planned' ? 0.7 : 1
  const steps = Array.from({ length: colour ? COLOUR_STEPS : 0 }, (_, i): Shape => {
    const at = {
      'x': left,
      'y': px(woodTop + (depth / COLOUR_STEPS) * i),
      'width': width - left,
      'height': px(depth / COLOUR_STEPS),
      'fill': layerFill(colour!.slug),
      'fill-opacity': px(0.85 * pale * (1 - i / COLOUR_STEPS)),
    }
    return { tag: 'rect', at: i === 0 ? { class: 'colour', ...at } : at, of: colour }
  })
  const fill = s.filled ? { 'fill': '#6b4a2b', 'fill-opacity': 0.85 } : { 'fill': '#1c211f', 'fill-opacity': 0.38 }
  const cups = pores.map((p): Shape => {
    const h = Math.min(p.h, height - woodTop)
    const d = `M${px(left + p.x - p.r)} ${woodTop} c0 ${h} ${p.r * 2} ${h} ${p.r * 2} 0 z`
    return { tag: 'path', at: { d, ...fill } }
  })
  return [...steps, ...cups]
}

const strokeOf = ({ state }: FilmDrawn, { states }: Box): Shape['at'] => {
  if (state === 'failing') return { 'stroke': MADDER, 'stroke-width': 3 }
  if (states && state === 'planned') return { 'stroke': INK, 'stroke-width': 1, 'stroke-dasharray': '6 4' }
  return { 'stroke': INK, 'stroke-width': 0.6 }
}
const paleness = ({ state, coloured }: FilmDrawn, { states }: Box): number => {
  if (states && state === 'planned') return 0.35
  return coloured ? 0.95 : 0.85
}
/** What is being laid just now is dotted, as wet things are. */
function dots({ y, h }: Band, x: number, width: number): Shape[] {
  const rows = Math.max(1, Math.floor(h / 6))
  const d = Array.from({ length: rows }, (_, row) =>
    Array.from(
      { length: Math.floor(width / 9) },
      (_, i) => `M${px(x + 5 + i * 9 + (row % 2) * 4)} ${px(y + 3 + row * 6)}h0`,
    ),
  )
  const at = {
    'd': d.flat().join(''),
    'stroke': '#7a5a2c',
    'stroke-width': 2.4,
    'stroke-linecap': 'round',
    'fill': 'none',
  }
  return [{ tag: 'path', at }]
}
function filmShapes(
  bands: readonly Band[],
  side: 'found' | 'planned',
  x: number,
  width: number,
  box: Box,
  gone = false,
) {
  return bands.flatMap((b): Shape[] => {
    const { film } = b
    const rect: Shape = {
      tag: 'rect',
      of: film,
      at: {
        'class': 'layer',
        'data-side': side,
        'data-um': px(film.um),
        'data-state': film.state,
        ...(film.layer === null ? {} : { 'data-layer': film.layer }),
        x,
        'y': px(b.y),
        width,
        'height': px(Math.max(1.2, b.h)),
        'fill': layerFill(film.slug),
        'fill-opacity': gone ? 0.3 : paleness(film, box),
        ...strokeOf(film, box),
      },
    }
    return film.state === 'running' ? [rect, ...dots(b, x, width)] : [rect]
  })
}
/** The line of the surface; over open pores a film sinks a little, filled ones carry it. */
function surfaceLine(s: SurfaceDrawn, pores: readonly Pore[], left: number, width: number, y: number): Shape[] {
  const sinks = s.pores === 'open' && !s.filled ? 1 : 0
  const line = (at: number, rough: number): string => {
    const points: string[] = []
    for (let x = 0; x <= width - left; x += 4) {
      const over = pores.find(p => Math.abs(p.x - x) < p.r * 1.6)
      const jag = rough * (((x * 7919) % 11) / 11 - 0.5)
      points.push(`${left + x},${px(at + jag + (over ? sinks * Math.min(5, over.r) : 0))}`)
    }
    return points.join(' ')
  }
  const drawn = (points: string, stroke: string, w: number): Shape => ({
    tag: 'polyline',
    at: { points, 'fill': 'none', stroke, 'stroke-width': w },
  })
  const shines = s.sheen === 'gloss' || s.sheen === 'semi-gloss'
  return [drawn(line(y, ROUGH[s.sheen]), INK, 1.6), ...(shines ? [drawn(line(y - 3, 0), '#fff', 1.4)] : [])]
}

/** The mark that states the scale of the films. */
const scaleOf = (mark_um: number, pxPerUm: number, left: number, woodTop: number): Shape[] => [
  {
    tag: 'path',
    at: {
      d: `M${left - 6} ${woodTop} v${-px(mark_um * pxPerUm)} m-4 0 h8 m-8 ${px(mark_um * pxPerUm)} h8`,
      stroke: INK,
      fill: 'none',
    },
  },
  {
    tag: 'text',
    text: `${mark_um} µm`,
    at: {
      'transform': `translate(${left - 13} ${px(woodTop - (mark_um * pxPerUm) / 2)}) rotate(-90)`,
      'font-size': 13,
      'text-anchor': 'middle',
      'fill': INK,
    },
  },
]

/** Places the cut in a box; wood takes the lower part, films keep one scale among each other, and it is stated. */
export function cutOf(s: SurfaceDrawn, box: Box): Cut {
  const { width, height, found: left } = box
  const sum = (films: readonly FilmDrawn[]) => films.reduce((um, f) => um + f.um, 0)
  const woodTop = Math.round(height * 0.58)
  const pxPerUm = (woodTop - 28) / Math.max(sum(s.found), sum(s.films), 30)
  const stack = (films: readonly FilmDrawn[]): Band[] => {
    let y = woodTop
    return films.map(film => {
      const h = film.um * pxPerUm
      y -= h
      return { y, h, film }
    })
  }
  const [found, planned] = [stack(s.found), stack(s.films)]
  const mark_um = MARKS_UM.find(um => um * pxPerUm > 40) ?? 500
  const pores = poresIn(s, width - left)
  const fibres = Array.from(
    { length: s.raised ? 40 : 0 },
    (_, i) => `M${left + i * 6} ${woodTop} l${(i % 3) - 1} -${3 + (i % 4)}`,
  )
  const shapes: Shape[] = [
    ...woodOf(s, box, woodTop),
    ...inWood(s, pores, box, left, woodTop),
    ...fibres.map((d): Shape => ({ tag: 'path', at: { d, 'stroke': INK, 'stroke-opacity': 0.6 } })),
    ...filmShapes(found, 'found', 0, left - GAP, box, s.foundGone),
    ...filmShapes(planned, 'planned', left, width - left, box),
    ...surfaceLine(s, pores, left, width, planned.at(-1)?.y ?? woodTop),
    ...(box.scale === false ? [] : scaleOf(mark_um, pxPerUm, left, woodTop)),
  ]
  return { pxPerUm, mark_um, woodTop, left, found, planned, shapes }
}

/** Labels moved apart so that none covers another; order kept. */
export function spread<T extends { at: number }>(labels: readonly T[], gap = 18): T[] {
  const sorted = [...labels].sort((a, b) => b.at - a.at)
  let limit = Infinity
  return sorted.map(l => {
    const at = Math.min(l.at + 4, limit - gap)
    limit = at
    return { ...l, at }
  })
}

/** The section: a cut through the surface, to scale in µm. Geometry first, then the same drawing as SVG text. */
import type { Context } from '../context'
import { foundSurface, isBare, type Step, walk } from '../acts'
import { materialOf } from '../materials'
import { groupsOf } from '../piece'
import { speciesOf } from '../wood'

export type LayerState = 'found' | 'done' | 'running' | 'planned' | 'failing'
export interface SectionLayer {
  slug: string
  name: string
  um: number
  state: LayerState
  step: string | null
  count: number
}
export interface SectionColour {
  slug: string
  name: string
  state: LayerState
  step: string
}
export interface Section {
  species: string
  tone: string
  pores: 'open' | 'closed'
  found: SectionLayer[]
  planned: SectionLayer[]
  colours: SectionColour[]
  foundGone: boolean
}

const nameOf = (slug: string) => {
  try {
    return materialOf(slug).name
  } catch {
    return slug.replaceAll('-', ' ')
  }
}

/** The layers found and planned on the group that shows most. `stateOf` tells how far each step is. */
export function sectionOf(
  context: Context,
  steps: readonly Step[],
  stateOf: (key: string) => LayerState,
  failing: ReadonlySet<string> = new Set(),
): Section | null {
  const { facts } = context
  const groups = groupsOf(facts).sort(
    (a, b) => b.faces.filter(f => f.rank === 'show').length - a.faces.filter(f => f.rank === 'show').length,
  )
  const lead = groups[0]
  if (!lead) return null
  // one face stands for its group: faces of a group may go different ways
  const group = { ...lead, faces: [lead.faces.find(f => f.rank === 'show') ?? lead.faces[0]!] }
  const visits = walk(steps, [group], context)
  const end = visits.at(-1)?.after ?? foundSurface(facts, group)
  const species = speciesOf(group.species)
  const state = (key: string | null): LayerState => {
    if (key === null) return 'found'
    if (failing.has(key)) return 'failing'
    return stateOf(key)
  }
  const found = foundSurface(facts, group).films.map(f => ({
    slug: f.slug,
    name: nameOf(f.slug),
    um: f.dry_um,
    state: 'found' as const,
    step: null,
    count: 1,
  }))
  const planned: SectionLayer[] = end.films.map(f => ({
    slug: f.slug,
    name: nameOf(f.slug),
    um: f.dry_um,
    state: f.found ? 'found' : state(f.step),
    step: f.step,
    count: 1,
  }))
  const colours = end.inWood
    .filter(w => !['conditioner', 'bleach', 'filler'].includes(w.role) && !end.films.some(f => f.step === w.step))
    .map(w => ({ slug: w.slug, name: nameOf(w.slug), state: state(w.step), step: w.step }))
  const foundGone = visits.some(v => !isBare(v.before) && isBare(v.after) && stateOf(v.step.key) === 'done')
  return { species: species.name, tone: species.tone, pores: species.pores, found, planned, colours, foundGone }
}

export interface SectionRect {
  side: 'found' | 'planned'
  x: number
  y: number
  w: number
  h: number
  um: number
  label: string
  state: LayerState
  step: string | null
  slug: string
}
export interface SectionDrawing {
  width: number
  height: number
  woodTop: number
  pxPerUm: number
  mark_um: number
  rects: SectionRect[]
  colourDepth: number
}

/**
 * Places the section in a box. The scale is stated: `pxPerUm` and a mark of `mark_um`. Films keep their scale among
 * each other.
 */
export function drawSection(s: Section, width: number, height: number): SectionDrawing {
  const total = (layers: readonly SectionLayer[]) => layers.reduce((sum, l) => sum + l.um, 0)
  const tallest = Math.max(total(s.found), total(s.planned), 20)
  const woodTop = Math.round(height * 0.68)
  const pxPerUm = (woodTop - 16) / tallest
  const smallMark_um = tallest > 60 ? 20 : 10
  const mark_um = tallest > 160 ? 50 : smallMark_um
  const half = width / 2
  const stack = (layers: readonly SectionLayer[], side: 'found' | 'planned', x: number): SectionRect[] => {
    let y = woodTop
    return layers.map(l => {
      const h = l.um * pxPerUm
      y -= h
      return {
        side,
        x,
        y,
        w: half,
        h,
        um: Math.round(l.um * 10) / 10,
        label: l.name,
        state: l.state,
        step: l.step,
        slug: l.slug,
      }
    })
  }
  return {
    width,
    height,
    woodTop,
    pxPerUm,
    mark_um,
    rects: [...stack(s.found, 'found', 0), ...stack(s.planned, 'planned', half)],
    colourDepth: s.colours.length ? Math.round((height - woodTop) * 0.35) : 0,
  }
}

export * from './surface'

const FILL: Record<string, string> = {
  'vinyl-sealer': '#eadfc2',
  'lacquer-sanding-sealer': '#e6d6ae',
  'shellac-brushed': '#c07a2a',
  'urethane-2c': '#dfe3df',
  'oil-polyurethane': '#d6a65a',
  'wiping-varnish': '#d0a566',
  'resin-oil-varnish': '#c89a55',
  'lacquer-toner': '#8a5a2c',
  'glaze': '#5b3d24',
  'water-dye': '#8b4f22',
  'alcohol-dye': '#7c4420',
  'ammonia': '#54402c',
  'paint-wash': '#e9e5da',
  'opaque-colour': '#d9dfd2',
  'primer-surfacer': '#b9b6ad',
  'hardwax-oil-2c': '#b98a4a',
  'raw-linseed': '#c08f42',
  'boiled-linseed': '#a9772f',
  'paste-wax': '#e4d3a3',
  'dewaxed-shellac': '#c8872f',
  'nitrocellulose-lacquer': '#dcb877',
  'waterborne-polyurethane': '#b9cfd0',
  'gel-stain': '#6e4526',
  'pigment-stain': '#7d4e2a',
  'varnish-oil': '#b07c3c',
}
/** Fill of a layer by its class; what was found is a plain grey-brown. */
export const layerFill = (slug: string): string => FILL[slug] ?? '#b8a78f'

const escape = (text: string) =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;')

/** The section as SVG text, as stored with an approval. */
export function sectionSvg(s: Section, width = 520, height = 260): string {
  const d = drawSection(s, width * 0.5, height)
  const style = (r: SectionRect) =>
    r.state === 'planned'
      ? `fill="${layerFill(r.slug)}" fill-opacity=".35" stroke="#1c211f" stroke-dasharray="5 3"`
      : `fill="${layerFill(r.slug)}" stroke="#1c211f" stroke-width=".5"`
  const rects = d.rects.map(
    r =>
      `<rect class="layer" data-side="${r.side}" data-um="${r.um}" x="${r.x.toFixed(1)}" ` +
      `y="${r.y.toFixed(1)}" width="${(r.w - 4).toFixed(1)}" height="${Math.max(1, r.h).toFixed(1)}" ` +
      `${style(r)}/>`,
  )
  const labels = spread(
    d.rects.filter(r => r.side === 'planned').map(r => ({ at: r.y + r.h / 2, text: `${r.label} · ${r.um} µm` })),
  ).map(
    l =>
      `<text x="${d.width + 8}" y="${l.at.toFixed(1)}" font-size="14" font-family="Schibsted Grotesk ` +
      `Variable, sans-serif" fill="#1c211f">${escape(l.text)}</text>`,
  )
  const colour = s.colours.length
    ? `<rect class="colour" x="${d.width / 2}" y="${d.woodTop}" width="${d.width / 2 - 4}" ` +
      `height="${d.colourDepth}" fill="${layerFill(s.colours[0]!.slug)}" fill-opacity=".6"/><text ` +
      `x="${d.width + 8}" y="${d.woodTop + 18}" font-size="14" font-family="Schibsted Grotesk Variable, ` +
      `sans-serif" fill="#1c211f">${escape(s.colours[0]!.name)}, in the wood</text>`
    : ''
  return (
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}" role="img" ` +
    `aria-label="Section: found and planned layers on ${escape(s.species)}">` +
    `<rect x="0" y="${d.woodTop}" width="${d.width - 4}" height="${height - d.woodTop}" fill="${s.tone}"/>` +
    `${colour}${rects.join('')}${labels.join('')}` +
    `<text x="4" y="${height - 10}" font-size="14" font-family="Schibsted Grotesk Variable, sans-serif" ` +
    `fill="#1c211f">${escape(s.species)} · found left, planned right</text></svg>`
  )
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

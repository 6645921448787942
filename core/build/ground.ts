/** What of a build-up can lie on a ground, and what stays out there, with its reason. */
import { does, foundSurface, isBare, type LayerUse } from '../acts'
import type { Context } from '../context'
import { taken } from '../materials'
import { type Group, type RouteSlug, STRIPPING } from '../piece'
import { type BuildUp, type Choice, type Layer, layerOf, layersOn } from './layer'

export interface LaidOut {
  layer: Layer
  why: string
}
export interface Laid {
  laid: Layer[]
  out: LaidOut[]
}

/** Layers that need wood without a film, and what is said of them where one stays. */
const NEEDS_BARE: Partial<Record<Layer['act'] | LayerUse, string>> = {
  'bleach': 'The old film stays, and bleach reaches bare wood only.',
  'fill': 'The old film stays, and has closed the pores.',
  'before-filler': 'The old film stays, and has closed the pores.',
  'under-shellac': 'The old film stays, and oil does not go in.',
}

/** Why a layer cannot lie over a film; null: it can. */
const overFilm = (layer: Layer): string | null => NEEDS_BARE[layer.use ?? layer.act] ?? NEEDS_BARE[layer.act] ?? null
/** Coats that only serve a colour. */
const FOR_COLOUR: readonly (LayerUse | null)[] = ['under-glaze', 'over-glaze', 'under-toner']
/** A layer that colours, prepares the wood for colour, or serves one. */
const colours = (layer: Layer): boolean =>
  does({ kind: layer.act }, 'colours') || layer.act === 'conditioner' || FOR_COLOUR.includes(layer.use)

/** Why a layer cannot lie on this ground; null: it can. */
function stayingOut(layer: Layer, ground: RouteSlug, bare: boolean, last: Layer | undefined, context: Context) {
  const m = taken(context.shelf, layer)
  switch (ground) {
    case 'refer':
      return 'A conservator decides what is laid on it.'
    case 'spot-repair':
      return 'Only spots are repaired; nothing is laid over the whole face.'
    case 'clean-and-wax':
      return m?.role === 'wax' ? null : 'The film is only cleaned and waxed.'
    case 'amalgamate':
      if (layer !== last) return 'The old film flows together, and keeps its colour.'
      return m?.meltsIn || m?.role === 'wax' ? null : `${m?.name ?? 'It'} does not melt into the film below.`
    case 'scuff-and-recoat':
      if (layer.act === 'gel') return 'It is scuffed for a clear coat. Scuff it for gel, or strip it.'
      return bare ? null : overFilm(layer)
    case 'scuff-and-gel':
      if (layer.act !== 'gel' && colours(layer)) return 'It is scuffed for gel, and the gel is its colour.'
      return bare ? null : overFilm(layer)
    default:
      return bare ? null : overFilm(layer)
  }
}
/** What is only cleaned is waxed, whatever else was chosen for it. */
const WAX: Layer = layerOf({ id: 0, act: 'wax', product: 'paste-wax', coats: 1 })

/** What of a build-up is laid on these faces; after a ground that lets the film flow a single coat. */
export function laidOn(context: Context, buildUp: BuildUp, group: Group): Laid {
  const { ground } = buildUp
  const layers = layersOn(buildUp.layers, group.faces)
  const bare = STRIPPING.includes(ground) || isBare(foundSurface(context.facts, group))
  const all = layers.map(layer => ({ layer, why: stayingOut(layer, ground, bare, layers.at(-1), context) }))
  const kept = all.filter(l => l.why === null).map(l => l.layer)
  const laid = ground === 'clean-and-wax' && kept.length === 0 ? [WAX] : kept
  const once = (l: Layer) => {
    if (ground === 'amalgamate' && l.act !== 'wax') return { ...l, coats: 1, film_um: null }
    return ground === 'clean-and-wax' ? { ...l, coats: l.coats ?? 1 } : l
  }
  return {
    laid: laid.map(once),
    out: all.flatMap(({ layer, why }) => (why === null ? [] : [{ layer, why }])),
  }
}

const nextId = (layers: readonly Layer[]) => Math.max(0, ...layers.map(l => l.id)) + 1
/** What stands below the colour: it goes into bare wood, or into its pores. */
const below = (l: Layer) => overFilm(l) !== null

/** A build-up on another ground. It keeps its layers; one that is scuffed for gel gets gel where it has none. */
export function onGround(buildUp: BuildUp, ground: RouteSlug): BuildUp {
  const { layers } = buildUp
  const moved = { ...buildUp, ground }
  if (ground !== 'scuff-and-gel' || layers.some(l => l.act === 'gel')) return moved
  const first = layers.findIndex(l => !below(l))
  const at = first < 0 ? layers.length : first
  const gel = layerOf({ id: nextId(layers), act: 'gel', product: 'gel-stain' })
  return { ...moved, layers: [...layers.slice(0, at), gel, ...layers.slice(at)] }
}

/** Every build-up on the ground that `of` gives it; one that keeps its ground stays as it is. */
export function onGrounds({ buildUps: [main, ...rest] }: Choice, of: (b: BuildUp) => RouteSlug): Choice {
  const moved = (b: BuildUp) => (of(b) === b.ground ? b : onGround(b, of(b)))
  return { buildUps: [moved(main), ...rest.map(moved)] }
}

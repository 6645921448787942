/** What of a build-up can lie on a ground, and what stays out there, with its reason. */
import { foundSurface, isBare, type LayerUse } from '../acts'
import type { Context } from '../context'
import { taken } from '../materials'
import { finishOn, type Group, RENEWED_WITH, type RouteSlug, STRIPPING } from '../piece'
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
/** Why a layer cannot lie on this ground; null: it can. */
function stayingOut(
  layer: Layer,
  { ground, bare, last, own }: { ground: RouteSlug; bare: boolean; last: Layer | undefined; own: string | undefined },
  context: Context,
) {
  const m = taken(context.shelf, layer)
  switch (ground) {
    case 'refer':
      return 'A conservator decides what is laid on it.'
    case 'spot-repair':
      return 'Only spots are repaired; nothing is laid over the whole face.'
    case 'clean-and-wax':
      return m?.role === 'wax' ? null : 'The film is only cleaned and waxed.'
    case 'polish':
      return 'What is there is polished; nothing is laid on it.'
    case 'renew':
      return layer.product === own ? null : 'It is renewed with its own kind. Strip it for another finish.'
    case 'amalgamate':
      if (layer !== last) return 'The old film flows together, and keeps its colour.'
      return m?.meltsIn || m?.role === 'wax' ? null : `${m?.name ?? 'It'} does not melt into the film below.`
    default:
      return bare ? null : overFilm(layer)
  }
}
/** What is only cleaned is waxed, whatever else was chosen for it. */
const WAX: Layer = layerOf({ id: 0, act: 'wax', product: 'paste-wax', coats: 1 })
/** The product that renews what was found on a group; undefined: nothing does in place. */
const ownKind = ({ facts }: Context, group: Group): string | undefined => {
  const top = finishOn(facts, group)[0]
  return top && RENEWED_WITH[top.finish]
}
/** What a ground lays where nothing that was chosen can lie on it. */
function usualOn(ground: RouteSlug, own: string | undefined): Layer[] {
  if (ground === 'clean-and-wax' || (ground === 'renew' && own === WAX.product)) return [WAX]
  return ground === 'renew' && own ? [layerOf({ id: 0, act: 'oil-on', product: own, coats: 1 })] : []
}

/** What of a build-up is laid on these faces; after a ground that lets the film flow a single coat. */
export function laidOn(context: Context, buildUp: BuildUp, group: Group): Laid {
  const { ground } = buildUp
  const layers = layersOn(buildUp.layers, group.faces)
  const bare = STRIPPING.includes(ground) || isBare(foundSurface(context.facts, group))
  const own = ownKind(context, group)
  const on = { ground, bare, last: layers.at(-1), own }
  const all = layers.map(layer => ({ layer, why: stayingOut(layer, on, context) }))
  const kept = all.filter(l => l.why === null).map(l => l.layer)
  const laid = kept.length === 0 ? usualOn(ground, own) : kept
  const once = (l: Layer) => {
    if (ground === 'amalgamate' && l.act !== 'wax') return { ...l, coats: 1, film_um: null }
    return ground === 'clean-and-wax' || ground === 'renew' ? { ...l, coats: l.coats ?? 1 } : l
  }
  return {
    laid: laid.map(once),
    out: all.flatMap(({ layer, why }) => (why === null ? [] : [{ layer, why }])),
  }
}

/** A build-up on another ground. It keeps its layers. */
export const onGround = (buildUp: BuildUp, ground: RouteSlug): BuildUp => ({ ...buildUp, ground })

/** Every build-up on the ground that `of` gives it; one that keeps its ground stays as it is. */
export function onGrounds({ buildUps: [main, ...rest] }: Choice, of: (b: BuildUp) => RouteSlug): Choice {
  const moved = (b: BuildUp) => (of(b) === b.ground ? b : onGround(b, of(b)))
  return { buildUps: [moved(main), ...rest.map(moved)] }
}

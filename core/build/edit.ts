/** Changes of a build-up: layers put in, changed, moved, taken out. Pure; a new layer takes the next free number. */
import { type StepKind, takesProduct } from '../acts'
import { type Material, MATERIALS } from '../materials'
import { type BuildUp, type Choice, type Layer, LAYER_KINDS, layerOf } from './layer'

/** A number that no layer of the piece has; those that are not stored yet count from here. */
export const freshLayerId = ({ buildUps }: Choice): number =>
  Math.max(0, ...buildUps.flatMap(b => b.layers.map(l => l.id))) + 1

const withLayers = (b: BuildUp, layers: readonly Layer[]): BuildUp => ({ ...b, layers })
/** Puts a layer in at this place, counted from the wood. */
export const putIn = (b: BuildUp, at: number, layer: Layer): BuildUp =>
  withLayers(b, [...b.layers.slice(0, at), layer, ...b.layers.slice(at)])
export const takeOut = (b: BuildUp, id: number): BuildUp =>
  withLayers(
    b,
    b.layers.filter(l => l.id !== id),
  )
export const changeLayer = (b: BuildUp, id: number, change: Partial<Omit<Layer, 'id'>>): BuildUp =>
  withLayers(
    b,
    b.layers.map(l => (l.id === id ? { ...l, ...change } : l)),
  )
/** Moves a layer up (away from the wood) or down; at the end it stays. */
export function moveLayer(b: BuildUp, id: number, by: number): BuildUp {
  const from = b.layers.findIndex(l => l.id === id)
  const to = Math.min(b.layers.length - 1, Math.max(0, from + by))
  const layer = b.layers[from]
  if (!layer || to === from) return b
  const rest = b.layers.filter(l => l.id !== id)
  return withLayers(b, [...rest.slice(0, to), layer, ...rest.slice(to)])
}

/** Product classes that a kind of layer may be laid with. */
export const classesFor = (act: StepKind): Material[] => MATERIALS.filter(m => takesProduct({ kind: act }, m))

/** A layer that may be put in: its kind, with the product that it usually takes. */
export interface Offer {
  act: StepKind
  product: string
  called: string
}
/** Every kind of layer with each product class that it may be laid with. */
export const offers = (): Offer[] =>
  LAYER_KINDS.flatMap(act => classesFor(act).map(m => ({ act, product: m.slug, called: m.name })))

/** A new layer of an offer. */
export const layerOfOffer = (id: number, { act, product }: Pick<Offer, 'act' | 'product'>): Layer =>
  layerOf({ id, act, product })

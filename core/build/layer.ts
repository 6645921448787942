/** What is laid on a surface, from the wood upward, and what it is laid on. */
import type { Grit } from '../abrasives'
import { ACTS, actOf, does, type Fields, type LayerUse, type Method, STEP_KINDS, type StepKind } from '../acts'
import type { Context } from '../context'
import { everydayOf, type Material, type Taken, taken } from '../materials'
import { factsOfFaces, type Facts, groupsOf, type Group, type RouteSlug } from '../piece'

/** What somebody chooses of a layer beside its product. */
export type LayerFields = Pick<Fields, 'wipe' | 'shade' | 'tint_pct' | 'thinned_pct' | 'band_mm' | 'recipe'>
export interface Layer extends Taken {
  /** stays the same as long as the layer is there: its steps' keys begin with it */
  id: number
  act: StepKind
  /** coats or rounds; null: as many as the wanted film takes, or as its product usually gets */
  coats: number | null
  /** dry film wanted, µm */
  film_um: number | null
  /** null: the usual one of its product */
  method: Method | null
  /** grit between its coats; null: the product's usual one, or the house's */
  between: Grit | null
  /** what it is for, where it is not the finish itself */
  use: LayerUse | null
  fields: LayerFields
  /** null: every face of its build-up */
  faces: readonly number[] | null
}

/** as-laid: the last coat sets the sheen · rubbed: it is rubbed to it once the film has cured */
export const ENDINGS = ['as-laid', 'rubbed'] as const
export type Ending = (typeof ENDINGS)[number]

/** A ground, what is laid on it from the wood upward, and how it ends. */
export interface BuildUp {
  id: number
  ground: RouteSlug
  ending: Ending
  layers: readonly Layer[]
  /** null: all faces in scope that no other build-up has */
  faces: readonly number[] | null
}
/** Is gel laid, which hides what a clear coat shows? */
export const isGelled = ({ layers }: Pick<BuildUp, 'layers'>): boolean => layers.some(l => l.act === 'gel')
/** The build-ups of a piece: the first is its main one. */
export interface Choice {
  buildUps: readonly [BuildUp, ...BuildUp[]]
}

export const layerOf = (given: Pick<Layer, 'id' | 'act' | 'product'> & Partial<Layer>): Layer => ({
  label: null,
  coats: null,
  film_um: null,
  method: null,
  between: null,
  use: null,
  fields: {},
  faces: null,
  ...given,
})
/** Kinds of step that may be a layer. */
export const LAYER_KINDS: readonly StepKind[] = STEP_KINDS.filter(kind => ACTS[kind].layer !== null)

/** A build-up with the piece as its faces make it. */
export interface Way {
  facts: Facts
  buildUp: BuildUp
}
/** The piece as its build-ups divide it, each with its own faces. A piece of one way comes back as it is. */
export function waysOf({ facts }: Pick<Context, 'facts'>, { buildUps }: Choice): Way[] {
  if (buildUps.length === 1) return [{ facts, buildUp: buildUps[0] }]
  const taken = new Set(buildUps.flatMap(b => b.faces ?? []))
  return buildUps
    .map(buildUp => ({
      facts: factsOfFaces(facts, id => buildUp.faces?.includes(id) ?? !taken.has(id)),
      buildUp,
    }))
    .filter(w => w.facts.faces.some(f => f.scope === 'refinish'))
}
/** The groups of one way, cut where a layer covers only some of their faces. */
export function groupsOfWay({ facts, buildUp }: Way): Group[] {
  const on = (face: number) =>
    buildUp.layers.map(l => (l.faces === null || l.faces.includes(face) ? '1' : '0')).join('')
  return groupsOf(facts).flatMap(group => {
    const cuts = [...new Set(group.faces.map(f => on(f.id)))]
    if (cuts.length === 1) return [group]
    return cuts.map(cut => ({
      ...group,
      key: `${group.key}|${cut}`,
      faces: group.faces.filter(f => on(f.id) === cut),
    }))
  })
}
/** The groups of every way; faces that go different ways are never one group. */
export const groupsIn = (context: Pick<Context, 'facts'>, choice: Choice): Group[] =>
  waysOf(context, choice).flatMap((way, i) => groupsOfWay(way).map(g => (i === 0 ? g : { ...g, key: `${i}|${g.key}` })))

/** Layers that lie on these faces. */
export const layersOn = (layers: readonly Layer[], faces: readonly { id: number }[]): Layer[] =>
  layers.filter(l => l.faces === null || faces.some(f => l.faces?.includes(f.id)))
/** The layer that makes the finish: the last film, oil or wax that serves nothing else; null: none is laid. */
export const finishLayer = (layers: readonly Layer[]): Layer | null =>
  layers.findLast(l => l.use === null && actOf({ kind: l.act }).layer?.finish) ?? null
/** What the finish is made with. */
export const finishMaterial = (layers: readonly Layer[], { shelf }: Pick<Context, 'shelf'>): Material | null => {
  const layer = finishLayer(layers)
  return layer && taken(shelf, layer)
}
/** Layers that colour. */
export const coloursIn = (layers: readonly Layer[]): Layer[] => layers.filter(l => does({ kind: l.act }, 'colours'))

type NameOf = (m: Material) => string
const inSentence: NameOf = ({ name }) => `${name.slice(0, 1).toLowerCase()}${name.slice(1)}`
function said(layer: Layer, { shelf }: Pick<Context, 'shelf'>, nameOf: NameOf): string | null {
  const says = actOf({ kind: layer.act }).layer?.everyday
  const m = taken(shelf, layer)
  if (!says || (layer.use !== null && layer.act !== 'oil-on')) return null
  return m ? `${says} ${nameOf(m)}` : says.replace(/ with$/, '')
}
/** A layer in few words, by its product; null: it only serves another. */
export const everyday = (layer: Layer, context: Pick<Context, 'shelf'>): string | null =>
  said(layer, context, inSentence)
/** The same for a client, by what its product is called at home. */
export const atHome = (layer: Layer, context: Pick<Context, 'shelf'>): string | null =>
  said(layer, context, m => everydayOf(m.slug)?.says ?? inSentence(m))

/** What a client sees of a choice: grounds, endings, colours, finishes. When it changes, the client is asked again. */
export const lookOfChoice = ({ buildUps }: Choice, context: Pick<Context, 'shelf'>): string =>
  JSON.stringify(buildUps.map(b => [b.ground, b.ending, b.layers.flatMap(l => everyday(l, context) ?? [])]))

/** Is the wood hidden under an opaque film? That is hard to undo, and wants the client's word in writing. */
export const paintsOver = ({ buildUps }: Choice, { shelf }: Pick<Context, 'shelf'>): boolean =>
  buildUps.some(b =>
    b.layers.some(l => {
      const m = taken(shelf, l)
      return m?.role === 'film' && m.traits.includes('coloured') && !l.use
    }),
  )

/**
 * What is proposed to be laid on a piece: layers from a few picks, by wood, wish and house methods. A choice of before
 * there were layers is read the same way.
 */
import type { LayerUse } from '../acts'
import type { Context } from '../context'
import {
  type Bleach,
  BLEACHES,
  type Colour,
  COLOURS,
  type Fill,
  FILLS,
  type Finish,
  FINISHES,
  materialOf,
} from '../materials'
import { factsOfFaces, type Facts, groupsOf, isFound, type RouteSlug } from '../piece'
import { speciesOf } from '../wood'
import { type House, finishOfSchool } from '../house'
import { onGround } from './ground'
import { type BuildUp, type Choice, type Ending, finishLayer, type Layer, layerOf, waysOf } from './layer'

/** What evens out the drinking of blotchy wood before a stain; `auto` is what wood and house ask for. */
export const CONDITIONERS = ['auto', 'none', 'oil-conditioner', 'water-conditioner'] as const
export type Conditioner = (typeof CONDITIONERS)[number]

/** A few picks, from which layers are proposed. */
export interface Picks {
  finish: Finish
  colour: Colour
  conditioner: Conditioner
  fill?: Fill
  bleach?: Bleach
  /** dry film wanted, µm; without it the product's usual coats */
  film_um?: number | null
}
/** What a proposal looks at. */
export interface Wished extends Pick<Context, 'house'> {
  facts: Pick<Facts, 'faces' | 'findings' | 'sheen' | 'rustic'>
}
type Draft = Omit<Layer, 'id'>
const draft = (given: Pick<Layer, 'act' | 'product'> & Partial<Draft>): Draft => layerOf({ id: 0, ...given })

/** A thin sealer: vinyl, or dewaxed shellac where contamination wants its barrier first. */
const seal = (use: LayerUse, facts: Wished['facts'], faces: readonly number[] | null): Draft =>
  draft({
    act: 'coat',
    product: isFound(facts, 'water-beads', 'fish-eyes') ? 'dewaxed-shellac' : 'vinyl-sealer',
    coats: 1,
    method: 'spray',
    use,
    faces,
  })
/** Dewaxed shellac, brushed, for what it keeps apart. */
const shellac = (use: LayerUse): Draft =>
  draft({ act: 'coat', product: 'dewaxed-shellac', coats: 1, method: 'brush', use })

/** Faces whose group answers yes; null: every face in scope. */
function facesWhere(
  facts: Wished['facts'],
  fits: (g: ReturnType<typeof groupsOf>[number]) => boolean,
): number[] | null {
  const groups = groupsOf(facts)
  const yes = groups.filter(fits)
  return yes.length === groups.length ? null : yes.flatMap(g => g.faces.map(f => f.id))
}
const some = (faces: readonly number[] | null): boolean => faces === null || faces.length > 0

function stain({ facts, house }: Wished, picks: Picks): Draft[] {
  const asked = (species: string) =>
    house.conditioner === 'always' ||
    (house.conditioner === 'where-blotchy' && speciesOf(species).blotches && !facts.rustic)
  const faces = picks.conditioner === 'auto' ? facesWhere(facts, g => asked(g.species)) : null
  const product = picks.conditioner === 'auto' ? 'oil-conditioner' : picks.conditioner
  const conditions = product !== 'none' && some(faces)
  return [
    ...(conditions ? [draft({ act: 'conditioner', product, faces })] : []),
    draft({ act: 'stain', product: 'pigment-stain' }),
  ]
}

function colours(context: Wished, picks: Picks): Draft[] {
  const film = materialOf(picks.finish).role === 'film'
  const product = picks.colour
  switch (product) {
    case 'none':
      return []
    case 'pigment-stain':
      return stain(context, picks)
    case 'gel-stain':
      return [draft({ act: 'gel', product })]
    case 'water-dye':
    case 'alcohol-dye':
    case 'ammonia':
      return [draft({ act: 'dye', product })]
    case 'paint-wash':
      return [draft({ act: 'paint-wash', product })]
    // a glaze lies between coats and a toner in a film; rules say so where what follows is none
    case 'glaze':
      return [
        shellac('under-glaze'),
        draft({ act: 'glaze', product }),
        ...(film && materialOf(picks.finish).base !== 'alcohol' ? [shellac('over-glaze')] : []),
      ]
    case 'lacquer-toner':
      return [seal('under-toner', context.facts, null), draft({ act: 'toner', product })]
  }
}

const SHELLACS: readonly string[] = ['dewaxed-shellac', 'shellac-brushed']

/** Layers for some picks, from the wood upward, numbered from `from`; `facts`: the faces that they are laid on. */
export function proposed(context: Wished, picks: Picks, from = 1): Layer[] {
  const { facts, house } = context
  const m = materialOf(picks.finish)
  const inFilm = picks.colour === 'glaze' || picks.colour === 'lacquer-toner'
  const first = house['fill-when'] === 'fill-stain'
  const wantsFill = (picks.fill ?? 'none') !== 'none' && m.role === 'film' && (first || !inFilm)
  const onPores = facesWhere(facts, g => speciesOf(g.species).pores === 'open')
  const fill = wantsFill && some(onPores) ? [draft({ act: 'fill', product: picks.fill!, faces: onPores })] : []
  const sealed = fill.length && !first ? [seal('before-filler', facts, onPores), ...fill] : []
  const oils = house['oil-under-shellac'] !== 'none' && picks.colour === 'none' && SHELLACS.includes(picks.finish)
  const unfilled = facesWhere(facts, g => !(sealed.length && speciesOf(g.species).pores === 'open'))
  const oil = oils && some(unfilled)
  const act = { film: 'coat', oil: 'oil-on', wax: 'wax' } as const
  const layers: Draft[] = [
    ...((picks.bleach ?? 'none') === 'none' ? [] : [draft({ act: 'bleach', product: picks.bleach! })]),
    ...(first ? fill : []),
    ...colours(context, picks),
    ...sealed,
    ...(oil
      ? [
          draft({
            act: 'oil-on',
            product: house['oil-under-shellac'] === 'raw' ? 'raw-linseed' : 'boiled-linseed',
            coats: 1,
            use: 'under-shellac',
            faces: unfilled,
          }),
        ]
      : []),
    draft({
      act: act[m.role as keyof typeof act],
      product: m.slug,
      film_um: m.role === 'film' ? (picks.film_um ?? null) : null,
    }),
  ]
  return layers.map((l, i) => ({ ...l, id: from + i }))
}

/** Rubbed to its sheen where the wish or the house asks for it, on a film that is rubbed. */
export function proposedEnding({ facts, house }: Wished, picks: Picks): Ending {
  const wanted = facts.sheen === 'gloss' || (facts.sheen !== 'matt' && house['satin-by'] === 'rub')
  return wanted && picks.finish === 'nitrocellulose-lacquer' ? 'rubbed' : 'as-laid'
}

/** What a house lays where nobody picked: its school's finish, gel where it is to be darker, nothing else. */
export const usualPicks = (house: House, { tone, use }: Pick<Facts, 'tone' | 'use'>): Picks => ({
  finish: finishOfSchool(house, use),
  colour: tone === 'darker' ? 'gel-stain' : 'none',
  conditioner: 'auto',
  fill: 'none',
  bleach: tone === 'lighter' ? 'two-part-bleach' : 'none',
  film_um: null,
})
/** The layers that wish, wood and house propose for a build-up, in place of its own. */
export function proposedAnew(context: Context, choice: Choice, b: BuildUp): BuildUp {
  const way = waysOf(context, choice).find(w => w.buildUp.id === b.id)
  const within = { ...context, facts: way?.facts ?? context.facts }
  const picks = usualPicks(context.house, context.facts)
  const layers = proposed(within, picks, Math.max(0, ...choice.buildUps.flatMap(x => x.layers.map(l => l.id))) + 1)
  return onGround({ ...b, layers, ending: proposedEnding(within, picks) }, b.ground)
}

/** A ground with picks, for the piece or for some of its faces. */
export interface PickedWay extends Picks {
  route: RouteSlug
  faces?: readonly number[]
}
/** The build-ups of a piece from picks: the main way first, then those of some faces alone. */
export function choiceOfPicks(context: Wished, main: PickedWay, own: readonly PickedWay[] = []): Choice {
  const apart = new Set(own.flatMap(w => w.faces ?? []))
  let from = 1
  const built = (way: PickedWay, id: number, on: (face: number) => boolean): BuildUp => {
    const within = { ...context, facts: factsOfFaces(context.facts, on) }
    const layers = proposed(within, way, from)
    from += layers.length
    return { id, ground: way.route, ending: proposedEnding(within, way), layers, faces: way.faces ?? null }
  }
  return {
    buildUps: [
      built(main, 1, face => !apart.has(face)),
      ...own.map((way, i) => built(way, i + 2, face => way.faces?.includes(face) ?? false)),
    ],
  }
}

/** The picks that a build-up comes nearest to, for a form that proposes anew. */
export function picksOf({ layers }: Pick<BuildUp, 'layers'>): Picks {
  const products = new Set(layers.flatMap(l => l.product ?? []))
  const one = <T extends string>(known: readonly T[], other: T): T => known.find(k => products.has(k)) ?? other
  const finish = finishLayer(layers)
  return {
    finish: FINISHES.find(f => f === finish?.product) ?? one(FINISHES, 'waterborne-polyurethane'),
    colour: one(COLOURS, 'none'),
    conditioner: products.has('pigment-stain') ? one(CONDITIONERS, 'none') : 'auto',
    fill: one(FILLS, 'none'),
    bleach: one(BLEACHES, 'none'),
    film_um: finish?.film_um ?? null,
  }
}

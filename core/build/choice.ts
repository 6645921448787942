/** The ways that a piece may go: route, finish and colour, for the whole or for some of its faces. */
import type { Bleach, Colour, Fill, Finish } from '../materials'
import type { Context } from '../context'
import { factsOfFaces, type Facts, groupsOf, type Group } from '../piece'

export const ROUTES = [
  'clean-and-wax',
  'amalgamate',
  'spot-repair',
  'scuff-and-recoat',
  'scuff-and-gel',
  'level-barrier-recoat',
  'strip-chemical',
  'strip-mechanical',
  'strip-both',
  'refer',
] as const
/** Least invasive first. */
export type RouteSlug = (typeof ROUTES)[number]
/** What a route is called. */
export const ROUTE_NAMES = {
  'clean-and-wax': 'Clean and wax',
  'amalgamate': 'Let the film flow together',
  'spot-repair': 'Repair spots',
  'scuff-and-recoat': 'Scuff and recoat',
  'scuff-and-gel': 'Scuff and gel stain',
  'level-barrier-recoat': 'Level, barrier, recoat',
  'strip-chemical': 'Strip with stripper',
  'strip-mechanical': 'Scrape and sand off',
  'strip-both': 'Strip, then sand',
  'refer': 'Refer to a conservator',
} as const satisfies Record<RouteSlug, string>
/** Routes that take the old film off. */
export const STRIPPING: readonly RouteSlug[] = ['strip-chemical', 'strip-mechanical', 'strip-both']

/** What evens out the drinking of blotchy wood before a stain; `auto` is what wood and finish ask for. */
export const CONDITIONERS = ['auto', 'none', 'oil-conditioner', 'water-conditioner'] as const
export type Conditioner = (typeof CONDITIONERS)[number]

/** A route and what is laid on it. */
export interface Way {
  route: RouteSlug
  finish: Finish
  colour: Colour
  conditioner: Conditioner
  fill?: Fill
  bleach?: Bleach
  /** dry film wanted, µm; without it the product's usual coats */ film_um?: number | null
}
/** Faces that go another way than the rest of the piece. */
export interface OwnWay extends Way {
  faces: readonly number[]
}
export interface Choice extends Way {
  own?: readonly OwnWay[]
}

/**
 * The piece as its ways divide it: the main way first, each with its own faces and choice. A piece of one way comes
 * back as it is.
 */
export function waysOf({ facts }: Pick<Context, 'facts'>, choice: Choice): { facts: Facts; choice: Choice }[] {
  const { own = [], ...main } = choice
  if (own.length === 0) return [{ facts, choice: main }]
  const taken = new Set(own.flatMap(w => w.faces))
  const ways = [
    { facts: factsOfFaces(facts, id => !taken.has(id)), choice: main },
    ...own.map(({ faces, ...way }) => ({
      facts: factsOfFaces(facts, id => faces.includes(id)),
      choice: { ...main, ...way },
    })),
  ]
  return ways.filter(w => w.facts.faces.some(f => f.scope === 'refinish'))
}

/** The groups of every way; faces that go different ways are never one group. */
export const groupsIn = (context: Pick<Context, 'facts'>, choice: Choice): Group[] =>
  waysOf(context, choice).flatMap((way, i) =>
    groupsOf(way.facts).map(g => (i === 0 ? g : { ...g, key: `${i}|${g.key}` })),
  )

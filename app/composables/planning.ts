import type { BuildUp, PickedWay, Picks } from '#core/build'
import type { Context } from '#core/context'
import type { House } from '#core/house'
import { factsOfFaces, type RouteSlug } from '#core/piece'
import type { HouseQuestion } from '~/workers/house.worker'

/** What is tried on a piece away from the page: a choice, for the piece with its own ways or for some faces alone. */
export interface Trial {
  id: number
  pick: Picks
  route: RouteSlug
  overrides: Partial<House>
  faces: number[] | null
}
/** The context is plain data; on its way as JSON its pairs are told as lists. */
export type Planning = Omit<AnswerOf<'GET /api/pieces/:id/planning'>, 'context' | 'own'> & {
  context: Context
  own: BuildUp[]
}

export const planningOf = async (id: number) =>
  (await call('GET /api/pieces/:id/planning', { id })) as unknown as Planning

/** A trial as a worker takes it. */
export function questionOf(planning: Planning, { pick, route, overrides, faces }: Trial): HouseQuestion {
  const { own, house, context, ...asking } = planning
  const { facts } = context
  const picked: PickedWay = { ...pick, route }
  // workers take plain data, no proxies
  return JSON.parse(
    JSON.stringify({
      ...asking,
      context: {
        ...context,
        facts: faces ? factsOfFaces(facts, f => faces.includes(f)) : facts,
        house: { ...house, ...overrides },
      },
      picked,
      rest: faces ? [] : own,
    }),
  ) as HouseQuestion
}

/** How a route stands, at a glance. */
export const STANDING_MARK = { 'possible': '●', 'doubtful': '◐', 'ruled-out': '○' } as const
export const STANDING_COLOUR = {
  'possible': 'text-moss',
  'doubtful': 'text-ochre',
  'ruled-out': 'text-madder',
} as const

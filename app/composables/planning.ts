import type { Choice, RouteSlug } from '#core/build'
import type { House } from '#core/house'
import { factsOfFaces } from '#core/piece'
import type { HouseQuestion } from '~/workers/house.worker'

/** What is tried on a piece away from the page: a choice, for the piece with its own ways or for some faces alone. */
export interface Trial {
  id: number
  pick: Record<string, unknown>
  route: RouteSlug
  overrides: Partial<House>
  faces: number[] | null
}
type Planning = AnswerOf<'GET /api/pieces/:id/planning'>

export const planningOf = (id: number) => call('GET /api/pieces/:id/planning', { id })

/** A trial as a worker takes it. */
export function questionOf(planning: Planning, { pick, route, overrides, faces }: Trial): HouseQuestion {
  const { own, house, facts, ...asking } = planning
  const choice = { ...pick, route, ...(faces ? {} : { own }) } as unknown as Choice
  // workers take plain data, no proxies
  return JSON.parse(
    JSON.stringify({
      ...asking,
      facts: faces ? factsOfFaces(facts, f => faces.includes(f)) : facts,
      choice,
      house: { ...house, ...overrides },
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

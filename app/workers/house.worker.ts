/**
 * What each house method would change on this piece: planned twice, the difference taken. Away from the page, method
 * by method.
 */
import { type BuildUp, choiceOfPicks, type PickedWay } from '#core/build'
import type { Context } from '#core/context'
import type { Rates } from '#core/estimate'
import { judgeRoute } from '#core/ground'
import { HOUSE_METHODS, HOUSE_SLUGS, type House } from '#core/house'
import type { Hours } from '#core/timetable'

export interface HouseQuestion {
  context: Context
  picked: PickedWay
  /** build-ups of other faces */
  rest: BuildUp[]
  rates: Rates
  hours: Hours
  prices: Record<string, number>
  now_ms: number
}
export interface HouseEffect {
  slug: keyof House
  option: string
  minutes: number
  days: number
  price_minor: number
  chance: number
  standing: string
}

self.onmessage = (event: MessageEvent<HouseQuestion>) => {
  const { context, picked, rest, rates, hours, prices, now_ms } = event.data
  const { house } = context
  const judge = (h: House) =>
    judgeRoute(picked.route, {
      context: { ...context, house: h },
      choice: { buildUps: [choiceOfPicks({ ...context, house: h }, picked).buildUps[0], ...rest] },
      rates,
      hours,
      now_ms,
      price: slug => prices[slug],
    })
  const base = judge(house)
  const effects: HouseEffect[] = []
  for (const [i, slug] of HOUSE_SLUGS.entries()) {
    for (const option of Object.keys(HOUSE_METHODS[slug].options).filter(o => o !== house[slug])) {
      const other = judge({ ...house, [slug]: option })
      effects.push({
        slug,
        option,
        minutes: other.likely.attended_min - base.likely.attended_min,
        days: other.worstDays - base.worstDays,
        price_minor: other.likely.total_minor - base.likely.total_minor,
        chance: other.chance - base.chance,
        standing: other.standing,
      })
    }
    self.postMessage({ progress: (i + 1) / HOUSE_SLUGS.length })
  }
  self.postMessage({ effects })
}

/** Every finish planned on this piece, away from the page. */
import { choiceOfPicks } from '#core/build'
import { compareFinishes } from '#core/ground'
import type { HouseQuestion } from './house.worker'

self.onmessage = (event: MessageEvent<HouseQuestion>) => {
  const { prices, picked, rest, ...q } = event.data
  const lines = compareFinishes({ ...q, price: slug => prices[slug] }, finish => ({
    buildUps: [choiceOfPicks(q.context, { ...picked, finish }).buildUps[0], ...rest],
  }))
  self.postMessage({ lines })
}

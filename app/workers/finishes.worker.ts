/** Every finish planned on this piece, away from the page. */
import { compareFinishes } from '#core/ground'
import type { HouseQuestion } from './house.worker'

self.onmessage = (event: MessageEvent<HouseQuestion>) => {
  const { prices, ...question } = event.data
  self.postMessage({ lines: compareFinishes({ ...question, price: slug => prices[slug] }) })
}

/** Every finish planned on this piece, away from the page. */
import { compareFinishes } from '#core/ground'
import type { HouseQuestion } from './house.worker'

self.onmessage = (event: MessageEvent<HouseQuestion>) => {
  const { prices, house, choice, ...rest } = event.data
  self.postMessage({ lines: compareFinishes({ ...rest, choice: { ...choice, house }, price: slug => prices[slug] }) })
}

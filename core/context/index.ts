/** What the reckoning knows beside the choice. It is put together where a piece is read, and handed through. */
import type { Air } from '../air'
import { STANDARD_AIR } from '../drying'
import { type House, USUAL_HOUSE } from '../house'
import { EMPTY_SHELF, type Shelf } from '../materials'
import type { Facts } from '../piece'

export interface Context {
  facts: Facts
  /** the shop's methods, with those of the piece over them */
  house: House
  shelf: Shelf
  air: Air
}

/** A piece in a shop with the usual methods, no labels and a label's air. */
export const usualContext = (facts: Facts, own: Partial<Omit<Context, 'facts'>> = {}): Context => ({
  facts,
  house: USUAL_HOUSE,
  shelf: EMPTY_SHELF,
  air: STANDARD_AIR,
  ...own,
})

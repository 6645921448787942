/** The shop's own products, by the version of their label: a class's figures with what the label says over them. */
import { materialOf } from './classes'
import type { Material } from './material'

export type Shelf = Readonly<Record<number, Material>>
/** Nothing but the classes. */
export const EMPTY_SHELF: Shelf = {}

/** A class of product, and the label of the shop's own where one was chosen. */
export interface Taken {
  product: string | null
  label: number | null
}
/** What is taken: by its label, else by its class; null: nothing is. @throws RangeError for an unknown class. */
export function taken(shelf: Shelf, { product, label }: Taken): Material | null {
  if (product === null) return null
  return (label === null ? undefined : shelf[label]) ?? materialOf(product)
}

/** Products and lots. */
import { z } from 'zod'
import { text, id, slugOf, CLASSES } from './fields'

export const addProduct = z.strictObject({
  name: text("The product's name"),
  class: slugOf(CLASSES, 'Choose a product class.'),
  priceMinor: z.number().int('Whole minor units.').min(0, 'A price cannot be below zero.').max(10_000_000),
})
export const addLot = z.strictObject({
  productId: id,
  code: text("The lot's number", 60),
  amountMl: z
    .number({ error: 'Give ml.' })
    .positive('Give an amount above zero.')
    .max(1_000_000, 'That is more than a cubic metre.'),
})

import { inFahrenheit } from '#core/units'
import type { ShopWays } from '../services/shop/person'

/** What is money by its name: minor units, and the shares of a price in basis points. */
const MONEY = /(_minor|Minor|_bp|Bp)$/
/** Sums written out in a text: beside the shop's currency, the worst that was told, what is put on materials. */
const sumsIn = (currency: string) =>
  new RegExp(
    [
      String.raw`${currency}\s?\d[\d ,.]*`,
      String.raw`\d[\d ,.]*\s?${currency}`,
      String.raw`\d[\d ,.]*(?= at worst)`,
      String.raw`(?<=on materials )[\d.]+ %, was [\d.]+ %`,
    ].join('|'),
    'g',
  )

/**
 * An answer as the shop writes it, for somebody who sees prices or not: without that right fields of money are not in
 * it, and sums in texts are a dash. Other objects than plain ones (a moment, a stream, bytes) stay as they are.
 */
export function written(answer: unknown, { currency, temperature }: ShopWays, seesPrices: boolean): unknown {
  if (seesPrices && temperature === 'C') return answer
  const sums = seesPrices ? null : sumsIn(currency)
  const textOf = (text: string) => {
    const said = temperature === 'F' ? inFahrenheit(text) : text
    return sums ? said.replace(sums, '–') : said
  }
  const plain = (x: unknown): unknown => {
    if (typeof x === 'string') return textOf(x)
    if (Array.isArray(x)) return x.map(plain)
    if (x === null || typeof x !== 'object' || Object.getPrototypeOf(x) !== Object.prototype) return x
    return Object.fromEntries(
      Object.entries(x)
        .filter(([key]) => seesPrices || !MONEY.test(key))
        .map(([key, value]) => [key, plain(value)]),
    )
  }
  return plain(answer)
}

import { readShop } from '../services/shop/rows'

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
 * An answer for somebody who sees no prices: fields of money are not in it, and sums in texts are a dash. Other
 * objects than plain ones (a moment, a stream, bytes) stay as they are.
 */
export function withoutMoney(answer: unknown, currency: string): unknown {
  const sums = sumsIn(currency)
  const plain = (x: unknown): unknown => {
    if (typeof x === 'string') return x.replace(sums, '–')
    if (Array.isArray(x)) return x.map(plain)
    if (x === null || typeof x !== 'object' || Object.getPrototypeOf(x) !== Object.prototype) return x
    return Object.fromEntries(
      Object.entries(x)
        .filter(([key]) => !MONEY.test(key))
        .map(([key, value]) => [key, plain(value)]),
    )
  }
  return plain(answer)
}

/** The shop's currency, three capitals. */
export const currency = async (): Promise<string> => (await readShop()).currency

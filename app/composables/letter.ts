import { DateTime } from 'luxon'
import { type ItemShown, type QuestionShown, type Reply, type Sum, sumOfReplies } from '#core/approval'

/** How a question's money and days are told to a client: in its own currency, in words of its own page. */
export function useLetter(shown: () => Pick<QuestionShown, 'currency' | 'items' | 'sums'>) {
  const money = (minor: number) =>
    new Intl.NumberFormat('en-GB', {
      ...{ style: 'currency', currency: shown().currency, maximumFractionDigits: 0, currencyDisplay: 'code' },
    }).format(minor / 100)
  const day = (iso: string) => DateTime.fromISO(iso).setLocale('en-GB').toFormat('d LLLL yyyy')
  const sumOf = (replies: readonly (readonly [number, Reply])[]) =>
    sumOfReplies(shown() as QuestionShown, new Map(replies))
  /** A surface that everything else is reckoned on, in questions that have one. */
  const ground = () =>
    shown()
      .items.filter(i => i.kind === 'surface')
      .map(i => [i.no, 0] as const)
  /** An option alone: the whole price of a surface; of all else what it adds, and by how many days. Null: no price. */
  function optionSum(item: ItemShown, option: number): { sum: Sum; adds: number | null } | null {
    if (!item.priced) return null
    if (item.kind === 'surface') {
      const sum = sumOf([[item.no, option]])
      return sum && { sum, adds: null }
    }
    const [without, sum] = [sumOf(ground()), sumOf([...ground(), [item.no, option]])]
    if (!without || !sum) return null
    const likely_minor = sum.likely_minor - without.likely_minor
    const days = (Date.parse(sum.readyLikely) - Date.parse(without.readyLikely)) / 86_400_000
    return { sum: { ...sum, likely_minor, worst_minor: sum.worst_minor - without.worst_minor }, adds: days || 0 }
  }
  return { money, day, sumOf, optionSum }
}

/** How a form names the answer to an item, and what was chosen there. */
export const fieldOf = (no: number) => `item-${no}`
export const replyRead = (text: unknown): Reply | null => {
  if (text === 'no' || text === 'talk') return text
  return typeof text === 'string' && /^\d$/.test(text) ? Number(text) : null
}
/** A day as a client's page writes it. */
export const letterDay = (moment: string) => DateTime.fromISO(moment).setLocale('en-GB').toFormat('cccc d LLLL')
/** A number of its own for what a form sends, so that sent twice it is done once. */
export const useUuid = (key: string) => useState(`uuid ${key}`, () => crypto.randomUUID()).value

/** What a client is asked in one letter: items, each with its options, and what every choice of them costs. */

/**
 * surface: what is done and laid · found: what was found since · work: more work at a price · date: a later day · cost:
 * a higher price
 */
export const ITEM_KINDS = ['surface', 'found', 'work', 'hardware', 'colour', 'date', 'cost'] as const
export type ItemKind = (typeof ITEM_KINDS)[number]
/** What a client says to an item: the number of an option, from 0; no; or that it wants talking about. */
export type Reply = number | 'no' | 'talk'
/** Replies by the number of their item. */
export type Answers = ReadonlyMap<number, Reply>
export type ItemStanding = 'open' | 'yes' | 'no' | 'talk' | 'overtaken'

export interface OptionShown {
  says: string
  /** more about it, in everyday words */
  lines: readonly string[]
  /** what is done, in order, in everyday words */
  does: readonly string[]
  /** every step that it takes, by title; kept, not shown to the client */
  steps: readonly string[]
  /** 1 to 5, where it is a finish: how much it stands, and how well it can be mended in place */
  stands: { durability: number; repairable: number } | null
  /** drawn by this shop (SVG); '': nothing is drawn */
  picture: string
  /** hard to undo: a yes by phone does not do */
  inWriting?: boolean
}
export interface ItemShown {
  no: number
  kind: ItemKind
  title: string
  says: string
  /** why the shop advises it */
  why: readonly string[]
  /** what may fail on the way, and what is done then */
  gate: string | null
  /** does the price hang on what is chosen? */
  priced: boolean
  options: readonly OptionShown[]
}
/** What one choice of all options costs, with tax, and when the piece is ready then (days, ISO). */
export interface Sum {
  /** by item: the option chosen; null: not this one */
  picks: readonly (number | null)[]
  likely_minor: number
  worst_minor: number
  readyLikely: string
  readySafe: string
}
/** Everything on the client's page comes from here, and from the record of the client that `client` names. */
export interface QuestionShown {
  version: 3
  shop: string
  piece: string
  /** by number, so that a name can be erased later; in questions from before by name */
  client: { ref: number } | { name: string }
  words: string
  currency: string
  answerBy: string
  photographs: readonly { address: string; caption: string }[]
  items: readonly ItemShown[]
  sums: readonly Sum[]
}

export const MOST_SUMS = 24

/** Every way to choose: one option of each item, or none where `mayMiss` says so. Null: more than `MOST_SUMS`. */
export function choicesOf(items: readonly { options: number; mayMiss: boolean }[]): (number | null)[][] | null {
  const count = items.reduce((n, i) => n * (i.options + Number(i.mayMiss)), 1)
  if (count > MOST_SUMS) return null
  return items.reduce<(number | null)[][]>(
    (all, { options, mayMiss }) =>
      all.flatMap(picks =>
        [...(mayMiss ? [null] : []), ...Array.from({ length: options }, (_, i) => i)].map(p => [...picks, p]),
      ),
    [[]],
  )
}

/** What these replies cost; null where no price hangs on them, or the surface was not agreed to. */
export function sumOfReplies({ items, sums }: QuestionShown, replies: Answers): Sum | null {
  const picks = items.map(({ no, priced }) => {
    const reply = replies.get(no)
    return priced && typeof reply === 'number' ? reply : null
  })
  return sums.find(s => s.picks.every((p, i) => p === picks[i])) ?? null
}

/** Does this item take this reply? Hardware is left as it is by an option of its own. */
export const takes = ({ kind, options }: ItemShown, reply: Reply): boolean =>
  reply === 'talk' ||
  (reply === 'no' && kind !== 'hardware') ||
  (Number.isInteger(reply) && Number(reply) >= 0 && Number(reply) < options.length)

/** Where a question stands, by its items. */
export function standingOf(items: readonly ItemStanding[]): 'open' | 'yes' | 'no' | 'talk' | 'superseded' {
  if (items.includes('open')) return 'open'
  return (['yes', 'talk', 'no'] as const).find(s => items.includes(s)) ?? 'superseded'
}

const NAME = '{client}'
const SHORTEST_NAME = 3
/** Words with a client's name taken out, so that they can be kept without it. */
export const withoutName = (words: string, name: string): string =>
  name.length < SHORTEST_NAME ? words : words.replaceAll(name, NAME)
export const withName = (words: string, name: string): string => words.replaceAll(NAME, name)

/** A sign of something gone wrong: what may have caused it, what tells causes apart, what mends it. */
import type { Fact } from './facts'
import type { MendSlug } from './mends'

export const GRADES = ['almost', 'half', 'hardly'] as const
export type Grade = (typeof GRADES)[number]
/** P(yes | cause) by grade. Shop default, unsourced. */
export const GRADE_P: Readonly<Record<Grade, number>> = { almost: 0.85, half: 0.5, hardly: 0.1 }

export interface Cause {
  says: string
  mend: MendSlug
  /** what to do another time */
  next: string
  /** facts that make it likelier, and less likely */
  more: readonly Fact[]
  less: readonly Fact[]
}
/** A question with yes, no, or not known. */
export interface Ask {
  asks: string
  /** how often it is yes under a cause; a cause that is not named: half the time, so it tells nothing of it */
  yes: Readonly<Record<string, Grade>>
  /** facts that answer it by themselves: then nobody is asked, and such a fact speaks through the answer alone */
  told: TellingFacts
}
export interface TellingFacts {
  yes?: readonly Fact[]
  no?: readonly Fact[]
}
export const GROUPS = ['film', 'colour', 'wood', 'hold'] as const
export type SignGroup = (typeof GROUPS)[number]
export interface Sign {
  slug: string
  /** where the list of signs has it */
  no: number
  group: SignGroup
  name: string
  /** at once, whatever the cause is */
  now: string
  /** most usual first */
  causes: Readonly<Record<string, Cause>>
  asks: Readonly<Record<string, Ask>>
}
interface About {
  more?: readonly Fact[]
  less?: readonly Fact[]
}
export const cause = (says: string, mend: MendSlug, next: string, { more = [], less = [] }: About = {}): Cause => ({
  ...{ says, mend, next, more, less },
})
export const ask = (
  asks: string,
  almost: readonly string[],
  hardly: readonly string[] = [],
  told: TellingFacts = {},
): Ask => ({
  told,
  asks,
  yes: {
    ...Object.fromEntries(almost.map(c => [c, 'almost' as const])),
    ...Object.fromEntries(hardly.map(c => [c, 'hardly' as const])),
  },
})

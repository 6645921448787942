/** What somebody may do in the shop. The owner may all of it, and says which role may what. */
import { z } from 'zod'

export const ROLES = ['owner', 'lead', 'finisher', 'office'] as const
export type Role = (typeof ROLES)[number]

export const RIGHTS = [
  'see-prices',
  'work',
  'examine',
  'mix',
  'edit-plan',
  'plan',
  'take-in',
  'quote',
  'hand-over',
  'store',
  'overrule',
  'shop',
  'people',
] as const
export type Right = (typeof RIGHTS)[number]

/** A right that comes with others: nobody quotes, buys or sets the shop's hour without seeing prices. */
export const IMPLIED: Partial<Record<Right, readonly Right[]>> = { 'see-prices': ['quote', 'store', 'shop'] }

/** Gives a right to a role, or takes it. */
export const rightChange = z.strictObject({
  role: z.enum(ROLES).exclude(['owner'], { error: 'The owner may all of it.' }),
  right: z.enum(RIGHTS, { error: 'There is no such right.' }),
  may: z.boolean(),
})

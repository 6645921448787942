/** What of a piece may hurt somebody, as far as the work depends on it. */
/** "Unknown" counts as yes until evidence says no. */
export type LeadAnswer = 'yes' | 'no' | 'unknown'
export const leadSuspected = (answer: LeadAnswer): boolean => answer !== 'no'

export const BANS = ['dry-sanding', 'heat-gun', 'dry-brushing', 'opening', 'sale-across-borders'] as const
export type Ban = (typeof BANS)[number]

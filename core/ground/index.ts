/** Which routes are possible on this piece, why, and what each costs in hours, days and money. */
export type { RouteReason, Standing } from './reason'
export * from './reasons'
export * from './judge'
export * from './left'
export * from './finishes'

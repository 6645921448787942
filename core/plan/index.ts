/** Plans: steps worked out from surface states, changed by hand, and followed by their fallback. */
export * from './loops'
export * from './chances'
export { bareLadder, budgetOf, stopFor } from './stages'
export * from './planner'
export * from './difference'
export * from './notes'
export * from './fallback'

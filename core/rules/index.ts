/** What may lie on what: rules of wood, colour and coats, a plan judged by them, and mends that are mechanical. */
export * from './judge'
export * from './mend'
export { type Breach, leastElapsed_min, type Rule, type RuleContext } from './rule'

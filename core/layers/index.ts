export * from './materials'
export * from './rules'
export * from './mend'

export * from './materials'
export * from './rules'
export * from './mend'
export * from './cautions'

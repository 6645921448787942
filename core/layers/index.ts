export * from './materials'
export * from './rules'

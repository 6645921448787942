/** Mixing: parts and percent, shellac cuts, sheen, pouring. */
export * from './amounts'
export * from './shellac'
export * from './sheen'
export * from './pour'
export * from './common'

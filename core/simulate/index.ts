/** A made-up shop's year, lived by several ways of running it. */
export * from './policies'
export * from './recipes'
export * from './shop'
export * from './world'
export * from './year'

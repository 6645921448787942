/** Species, water in wood, movement, veneer. */
export * from './species'
export * from './moisture'
export * from './movement'
export * from './veneer'

/** The store: units, consumables, how long a can keeps, what each step takes from, what must be bought. */
export * from './age'
export * from './allot'
export * from './buy'
export * from './consumables'
export * from './lots'
export * from './products'

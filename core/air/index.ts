/** The air of a room, what it forbids, and what it will be. */
export * from './room'
export * from './forecast'
export * from './log'
export * from './span'
export * from './weather'

/** What browser and server say to each other. Messages are written for a restorer. */
export * from './fields'
export * from './piece'
export * from './examination'
export * from './plan'
export * from './client'
export * from './bench'
export * from './store'
export * from './shop'

/** Product classes with their usual figures. */
export * from './cautions'
export * from './material'
export * from './classes'
export * from './everyday'
export * from './label'
export * from './shelf'

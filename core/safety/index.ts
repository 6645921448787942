/** Hazards, cautions, and the classes of verdict. */
export * from './cautions'
export * from './hazards'
export * from './licences'
export * from './rags'

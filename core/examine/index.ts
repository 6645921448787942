/** The examination of a piece: the walk, patches, verdicts, and what follows from the record. */
export * from './conclude'
export * from './layout'
export * from './patch'
export { type PartFaces, type Question, type Station, STATIONS, type WalkContext, type WalkOption } from './question'
export * from './questions'
export * from './verdicts'
export * from './walk'

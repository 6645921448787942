/** Grit scales, ladders and what sanding takes off. */
export * from './tables'
export * from './scales'
export * from './ladder'
export * from './budget'

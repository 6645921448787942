/** What is laid on a piece: build-ups of layers, what is proposed, and what can lie on which ground. */
export * from './edit'
export * from './ground'
export * from './known'
export * from './layer'
export * from './proposal'

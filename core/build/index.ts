/** What is chosen for a piece: route, finish and colour, and which of its faces go which way. */
export * from './choice'

/**
 * Colour: spectra, lights, differences, wood and film, recipes, corrections, learning. Reflectance is a factor at 400
 * to 700 nm, each 10 nm.
 */
export * from './spectrum'
export * from './lights'
export * from './cielab'
export * from './difference'
export * from './metamerism'
export * from './screen'
export * from './kubelka'
export * from './coats'
export * from './predict'
export * from './reconstruct'
export * from './search'
export * from './question'
export * from './correct'
export * from './learn'
export * from './panel'
export * from './drawing'

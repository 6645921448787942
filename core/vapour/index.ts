/** The air that people breathe: solvents and their limits, what work gives off, the air that dilutes it. */
export * from './cartridge'
export * from './dilution'
export * from './solvents'

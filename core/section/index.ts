/** A cut through the surface, to scale in µm: what lies on it, its shapes in a box, the same as SVG text. */
export * from './fills'
export * from './shapes'
export * from './surface'
export * from './svg'

/** Kinds of step: what each needs, does, leaves and asks. */
export * from './minutes'
export * from './sanding'
export * from './step'
export * from './surface'
export * from './waits'

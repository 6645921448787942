/** What lies on a piece when it comes in. */
export const FINISH_CLASSES = [
  'none',
  'wax',
  'oil',
  'shellac',
  'nitrocellulose-lacquer',
  'oil-varnish',
  'oil-polyurethane',
  'waterborne',
  'catalysed',
  'hardwax-oil',
  'oil-paint',
] as const
export type FinishClass = (typeof FINISH_CLASSES)[number]
/** Films that their own solvent melts: a new coat melts into them. */
export const MELTS: readonly string[] = ['shellac', 'nitrocellulose-lacquer'] satisfies FinishClass[]

/** What one group of faces carries, from the top layer down. `finish` null: not tested. */
export interface FoundFinish {
  group: string
  layers: { finish: FinishClass; certainty: number }[]
}

/** Lengths as people type them, and areas of faces. Lengths in mm, areas in m². */

export * from './temperature'

export const MM_PER_INCH = 25.4

const VULGAR: Record<string, string> = {
  '¼': '1/4',
  '½': '1/2',
  '¾': '3/4',
  '⅓': '1/3',
  '⅔': '2/3',
  '⅛': '1/8',
  '⅜': '3/8',
  '⅝': '5/8',
  '⅞': '7/8',
}

const UNIT_MM: Record<string, number> = {
  'mm': 1,
  'cm': 10,
  'm': 1000,
  'in': MM_PER_INCH,
  'inch': MM_PER_INCH,
  'inches': MM_PER_INCH,
  '"': MM_PER_INCH,
  '″': MM_PER_INCH,
  'ft': 12 * MM_PER_INCH,
  'foot': 12 * MM_PER_INCH,
  'feet': 12 * MM_PER_INCH,
  "'": 12 * MM_PER_INCH,
  '′': 12 * MM_PER_INCH,
}

/** Reads "2", "2.5", "1/4", "2 1/4", "2-1/4". Null when it is none of these. */
function parseQuantity(text: string): number | null {
  const mixed = /^(?:(\d+)(?:\s+|-))?(\d+)\s*\/\s*(\d+)$/.exec(text)
  if (mixed) {
    const [, whole, over, under] = mixed
    return Number(under) === 0 ? null : Number(whole ?? 0) + Number(over) / Number(under)
  }
  return /^(\d+([.,]\d+)?|[.,]\d+)$/.test(text) ? Number(text.replace(',', '.')) : null
}

/**
 * Length in mm of what somebody typed: `600`, `60 cm`, `1/4 in`, `¼ in`, `2 1/4"`, `2' 3 1/2"`.
 * A bare number is in `bareUnit`. Null when it is not a positive length.
 */
export function parseLength_mm(typed: string, bareUnit: 'mm' | 'in' = 'mm'): number | null {
  let text = typed.trim().toLowerCase()
  for (const [sign, plain] of Object.entries(VULGAR)) text = text.replaceAll(sign, ` ${plain}`)
  text = text.trim().replace(/\s+/g, ' ')
  if (!text) return null
  let rest = text
  let sum = 0
  let seen = 0
  const term = /^([\d.,/\s-]+?)\s*(mm|cm|m|inches|inch|in|feet|foot|ft|"|″|'|′|$)\.?\s*/
  while (rest) {
    const match = term.exec(rest)
    if (!match) return null
    const quantity = parseQuantity(match[1]!.trim())
    if (quantity === null || (seen > 0 && !match[2])) return null
    sum += quantity * UNIT_MM[match[2] || bareUnit]!
    seen += 1
    rest = rest.slice(match[0].length)
  }
  return sum > 0 && Number.isFinite(sum) ? sum : null
}

/** What anything in a shop may measure, mm: from a stringing line to a long panelling. */
export const LENGTH_MM = { least: 0.5, most: 20_000 } as const
/** A veneer's thickness, mm. */
export const VENEER_MM = { least: 0.1, most: 10 } as const
export const isWithin = (value: number | null, { least, most }: { least: number; most: number }): value is number =>
  value !== null && value >= least && value <= most

/** What one piece may hold: faces, and m² of all of them. Beyond that it is a building, and goes in parts. */
export const MOST_FACES = 300
export const MOST_AREA_M2 = 300

export const SHAPES = ['flat', 'oval', 'profiled', 'turned', 'carved'] as const
export type Shape = (typeof SHAPES)[number]
/** Flat, whatever its outline: a machine and a scraper reach it. */
export const isFlat = ({ shape }: { shape: Shape }): boolean => shape === 'flat' || shape === 'oval'

/** Carved relief holds 1.3 to 1.6 times its outline (common practice); the middle is taken. */
export const CARVED_FACTOR = 1.45
const SURFACE_FACTOR: Partial<Record<Shape, number>> = { oval: Math.PI / 4, turned: Math.PI, carved: CARVED_FACTOR }

/**
 * Surface of one kind of face, all its copies together, in m².
 * Flat and profiled: length × (developed) width. Round or oval: π/4 of that. Turned: π × mean diameter × length.
 * Carved: outline × 1.45.
 * @throws RangeError when a size is not above zero or the count is not a whole number above zero.
 */
export function faceArea_m2(face: { shape: Shape; length_mm: number; width_mm: number; count: number }): number {
  const { shape, length_mm, width_mm, count } = face
  if (!(length_mm > 0) || !(width_mm > 0)) throw new RangeError('A face needs a length and a width above zero.')
  if (!Number.isInteger(count) || count < 1) throw new RangeError('A face needs a whole count, at least 1.')
  const factor = SURFACE_FACTOR[shape] ?? 1
  return (length_mm * width_mm * factor * count) / 1e6
}

/** Sum of what `pick` reads from each row. */
export const sumOf = <T>(rows: readonly T[], pick: (row: T) => number): number =>
  rows.reduce((sum, row) => sum + pick(row), 0)

/** Neighbours that are alike, together; never an empty run. */
export function runsOf<T>(rows: readonly T[], alike: (row: T) => string): T[][] {
  const runs: T[][] = []
  for (const row of rows) {
    const run = runs.at(-1)
    if (run && alike(run[0]!) === alike(row)) run.push(row)
    else runs.push([row])
  }
  return runs
}

/** Rounds to `digits` after the point; for display and for stored money-like figures only. */
export const round = (value: number, digits = 0): number => Math.round(value * 10 ** digits) / 10 ** digits

/** A slug as words, where it has no name of its own: nobody reads "white-ring". */
export const saidSlug = (slug: string): string => slug.replaceAll('-', ' ')

/** What may be measured at the end of a step, and is kept with it. */
/** Numbers, with their bounds: thickness and what was taken off in mm, film in µm, wood moisture in per cent. */
export const MEASURES = {
  /** before the work: thickness, and the widest light under the straight edge */
  before_mm: { least: 0.1, most: 300 },
  hollow_before_mm: { least: 0, most: 30 },
  /** of the wood or veneer that is left, the least of its places */
  thickness_mm: { least: 0.1, most: 300 },
  /** taken off since the step began; 0.8 to 1.6 mm is much */
  taken_mm: { least: 0, most: 20 },
  /** widest light under the straight edge: along, across or on a diagonal */
  hollow_mm: { least: 0, most: 30 },
  /** shiny spots left: the lows */
  shiny: { least: 0, most: 99 },
  moisture_pct: { least: 3, most: 60 },
  /** of all that lies on the wood, by the gauge */
  film_um: { least: 1, most: 3000 },
} as const
export type Measure = keyof typeof MEASURES
/** Two halves of a rubbed face beside each other in raking light. */
export const HALVES = ['alike', 'differ'] as const
export type Measured = { [M in Measure]?: number } & {
  /** gun, needle and cap, fan, pressures, reduction: the next coat starts from it */
  gun?: string
  halves?: (typeof HALVES)[number]
}

const FLAT: readonly Measure[] = ['before_mm', 'thickness_mm', 'hollow_before_mm', 'hollow_mm', 'taken_mm']
const FILM: readonly Measure[] = ['film_um']
/** By kind of step. */
const BY_KIND: Readonly<Record<string, readonly Measure[]>> = {
  'sand': FLAT,
  'sand-off': FLAT,
  'level': ['film_um', 'shiny'],
  'rub-out': ['film_um', 'shiny'],
  'sand-coat': ['shiny'],
  'coat': FILM,
  'clean-off': ['moisture_pct'],
  'wet-out': ['moisture_pct'],
}
/** What is worth measuring at the end of this step; `gun`: how it was sprayed; `halves`: compared. */
export interface Measurable {
  numbers: readonly Measure[]
  gun: boolean
  halves: boolean
}
export const measuresOf = (step: { kind: string; method: string }): Measurable => ({
  numbers: BY_KIND[step.kind] ?? [],
  gun: step.method === 'spray',
  halves: step.kind === 'rub-out',
})

/** Taken off a top, 0.8 to 1.6 mm is much (handbook 18). */
const MUCH_MM = 0.8
const UNITS: { [M in keyof Measured]-?: (value: never) => string } = {
  before_mm: (mm: number) => `${mm} mm thick before`,
  hollow_before_mm: (mm: number) => `hollow ${mm} mm before`,
  thickness_mm: (mm: number) => `${mm} mm thick`,
  taken_mm: (mm: number) => `${mm} mm taken off${mm >= MUCH_MM ? ', which is much' : ''}`,
  hollow_mm: (mm: number) => `hollow ${mm} mm`,
  shiny: (n: number) => `shiny spots left: ${n}`,
  moisture_pct: (pct: number) => `moisture ${pct} %`,
  film_um: (um: number) => `film ${um} µm`,
  gun: (text: string) => `gun: ${text}`,
  halves: (seen: string) => `halves ${seen}`,
}
/** What was taken off, where thickness was measured before and after and nobody said it. */
export function withTaken(measured: Measured): Measured {
  const { before_mm, thickness_mm, taken_mm } = measured
  if (taken_mm !== undefined || before_mm === undefined || thickness_mm === undefined) return measured
  return { ...measured, taken_mm: Math.max(0, Math.round((before_mm - thickness_mm) * 100) / 100) }
}
/** "Measured: film 85 µm, shiny spots left: 2"; nothing where nothing was. */
export function measuredSaid(measured: Measured): string {
  const said = Object.entries(measured)
    .filter(([, value]) => value !== '')
    .map(([what, value]) => UNITS[what as keyof Measured](value as never))
  return said.length ? `Measured: ${said.join(', ')}` : ''
}

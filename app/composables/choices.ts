/** One of what may be chosen. */
export interface Option<T> {
  value: T
  label: string
  disabled?: boolean
}
/** Slugs as options, each with its words. */
export const optionsOf = <const T extends string | number>(
  values: readonly T[],
  say: (value: T) => string = String,
): Option<T>[] => values.map(value => ({ value, label: say(value) }))
/** Rows that have a name, by their slug or their number. */
export const namedOptions = <Row extends { name: string } & ({ slug: string } | { id: number })>(
  rows: readonly Row[],
): Option<Row extends { slug: infer S } ? S : Row extends { id: infer N } ? N : never>[] =>
  rows.map(row => ({ value: ('slug' in row ? row.slug : row.id) as never, label: row.name }))

const written = (n: number) => n.toLocaleString('en-GB')
/** Why a number may not stand in its field; empty: it may. */
export function outside(value: number | null, min?: number, max?: number): string {
  if (value === null || ((min === undefined || value >= min) && (max === undefined || value <= max))) return ''
  if (max === undefined) return w('number.atLeast', { min: written(min!) })
  return min === undefined
    ? w('number.atMost', { max: written(max) })
    : w('number.between', { min: written(min), max: written(max) })
}

const LINE_PX = 48
const LIST_PX = 320
/** How high a list of so many lines opens. */
export const listHigh_px = (lines: number) => Math.min(LIST_PX, lines * LINE_PX) + 12
/** Which way something that opens has room: down and to the right, or else up, or to the left. */
export function useRoomBelow(high_px: () => number, wide_px = 224) {
  const opens = ref('top-full left-0 mt-1')
  const place = (event: Event) => {
    const { top, bottom, left } = (event.currentTarget as HTMLElement).getBoundingClientRect()
    const upwards = innerHeight - bottom < high_px() && top > high_px()
    const leftwards = left + wide_px > innerWidth
    opens.value = `${upwards ? 'bottom-full mb-1' : 'top-full mt-1'} ${leftwards ? 'right-0' : 'left-0'}`
  }
  return { opens, place }
}

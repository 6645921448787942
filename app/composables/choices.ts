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

const LIST_HIGH_PX = 340
/** Whether a list that opens has room below its field, or opens upwards. */
export function useRoomBelow() {
  const upwards = ref(false)
  const place = (event: Event) => {
    const { top, bottom } = (event.currentTarget as HTMLElement).getBoundingClientRect()
    upwards.value = innerHeight - bottom < LIST_HIGH_PX && top > LIST_HIGH_PX
  }
  return { upwards, place }
}

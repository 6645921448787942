import type { ShallowRef } from 'vue'

/** Keeps the current tab of a row in view, where the row is wider than a phone. */
export function useCurrentInView(row: Readonly<ShallowRef<HTMLElement | null>>) {
  const route = useRoute()
  watch(
    [row, () => route.path],
    () => row.value?.querySelector('[aria-current]')?.scrollIntoView({ inline: 'center', block: 'nearest' }),
    { flush: 'post' },
  )
}

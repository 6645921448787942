/** The evening theme, kept by this device. */
export function useEvening() {
  const kept = useKept('evening', { on: false })
  useHead({ htmlAttrs: { class: () => (kept.value.on ? 'dark' : '') } })
  return computed({ get: () => kept.value.on, set: on => (kept.value = { on }) })
}

/** The evening theme, kept by this device. */
export function useEvening() {
  const dark = useLocalStorage('hantverk-evening', false)
  onMounted(() => {
    watchEffect(() => document.documentElement.classList.toggle('dark', dark.value))
  })
  return dark
}

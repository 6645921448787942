/** The balance while a page is open: each weight as it comes; null when it is silent. */
export function useBalance() {
  const weight = ref<number | null>(null)
  const steady = ref(false)
  const simulated = ref(false)
  let source: EventSource | undefined
  function open() {
    if (source) return
    source = new EventSource('/api/balance')
    source.onmessage = (event: MessageEvent<string>) => {
      const now = JSON.parse(event.data) as { weight_g: number | null; steady: boolean; simulated: boolean }
      weight.value = now.weight_g
      steady.value = now.steady
      simulated.value = now.simulated
    }
    source.onerror = () => {
      weight.value = null
    }
  }
  function close() {
    source?.close()
    source = undefined
    weight.value = null
  }
  onUnmounted(close)
  const tell = (act: 'tare' | 'pour' | 'stop', g_s = 6) => send('POST /api/balance', { body: { act, g_s } })
  return { weight, steady, simulated, open, close, tell }
}

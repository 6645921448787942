import type { Reason, Recipe, SearchQuestion, SearchState } from '#core/colour'

/** A search for recipes in a worker: what it found so far, what it chose, why it found no better. */
export function useRecipeSearch(question: () => SearchQuestion | null) {
  const state = shallowRef<SearchState | null>(null)
  const chosen = shallowRef<Recipe | null>(null)
  const reasons = shallowRef<Reason[]>([])
  const failed = ref('')
  const running = ref(false)
  let worker: Worker | null = null
  function stop() {
    worker?.terminate()
    worker = null
    running.value = false
  }
  function clear() {
    stop()
    state.value = chosen.value = null
    reasons.value = []
    failed.value = ''
  }
  function search() {
    clear()
    const asked = question()
    if (!asked) return
    running.value = true
    worker = new Worker(new URL('../workers/recipes.worker.ts', import.meta.url), { type: 'module' })
    worker.onmessage = ({ data }: MessageEvent<SearchMessage>) => {
      if ('failed' in data) {
        failed.value = data.failed
        stop()
      } else if ('state' in data) {
        state.value = data.state
        chosen.value = data.state.best[0] ?? null
      } else {
        state.value = data.done
        chosen.value = data.chosen
        reasons.value = data.reasons
        stop()
      }
    }
    // workers take plain data, no proxies
    worker.postMessage(JSON.parse(JSON.stringify(asked)))
  }
  onUnmounted(stop)
  /** Only another question takes an answer away; others' work in the shop does not. */
  watch(() => JSON.stringify(question()), clear)
  return { state, chosen, reasons, failed, running, search, stop }
}

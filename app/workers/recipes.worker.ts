/**
 * Searches recipes away from the page: the first good answer at once, better ones as they come. Ended from outside to
 * cancel.
 */
import { proposed, type SearchQuestion, searchRecipes, type SearchState, whyNot } from '#core/colour'

self.onmessage = (event: MessageEvent<SearchQuestion>) => {
  try {
    let state: SearchState = { done: 0, all: 0, best: [] }
    let told = 0
    for (state of searchRecipes(event.data)) {
      if (performance.now() - told < 60) continue
      told = performance.now()
      self.postMessage({ state })
    }
    const chosen = proposed(state.best)
    self.postMessage({ done: state, chosen, reasons: chosen ? whyNot(event.data, chosen) : [] })
  } catch (error) {
    self.postMessage({ failed: (error as Error).message })
  }
}

/** Kept by the page itself while its program is still on the way: the button that was touched last. */
const KEEP = `addEventListener('click', e => {
  if (!document.querySelector('[data-live]')) window.early = e.target.closest?.('button')
}, true)`

/** A touch on a page that is shown but not yet alive is not lost: it is done as soon as it can be heard. */
export function useEarlyTouch() {
  if (import.meta.server) useHead({ script: [{ innerHTML: KEEP }] })
  onMounted(() => {
    const kept = window as { early?: HTMLButtonElement }
    // the rows are still those that were shown: nothing was read since
    if (kept.early?.isConnected) kept.early.click()
    delete kept.early
  })
}

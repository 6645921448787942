/** Keys of the whole shop and of a screen, as `?` shows them; a screen that listens to one names it here. */
export const KEYS = {
  everywhere: { find: '/', keys: '?', closes: 'Esc' },
  now: { mine: 'm', big: 'b' },
  plan: { earlier: 'Alt + ↑', later: 'Alt + ↓' },
} as const

/** Calls back on a plain key, unless somebody is typing or holds another one down. */
export function onPlainKey(keys: Readonly<Record<string, () => void>>) {
  useEventListener('keydown', event => {
    const { target, key, ctrlKey, metaKey, altKey } = event
    const field = target instanceof HTMLElement && target.closest('input, textarea, select, [contenteditable]')
    const act = keys[key]
    if (!act || field || ctrlKey || metaKey || altKey || document.querySelector('[role=dialog]')) return
    event.preventDefault()
    act()
  })
}

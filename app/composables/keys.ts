/** Keys of the whole shop and of a screen, as `?` shows them; a screen that listens to one names it here. */
export const KEYS = {
  everywhere: { find: '/', keys: '?', closes: 'Esc' },
  now: { mine: 'm', big: 'b' },
  plan: { earlier: 'Alt + ↑', later: 'Alt + ↓' },
  rows: { next: 'j', before: 'k', act: 'Enter', more: 'o' },
} as const

/** From one step's touch to the next by keys, and all that it takes beside: of whatever stands as `data-acts`. */
export function useRowKeys() {
  const rows = () =>
    [...document.querySelectorAll<HTMLElement>('main [data-acts]')].filter(
      r => r.offsetParent && r.querySelector('button'),
    )
  const at = () => rows().findIndex(r => r.contains(document.activeElement))
  const to = (by: number) => {
    const list = rows()
    // from nowhere: to the first that is in sight
    const place = at() < 0 ? list.findIndex(r => r.getBoundingClientRect().top >= 0) : at() + by
    const next = list[Math.min(Math.max(place, 0), list.length - 1)]
    next?.querySelector('button')?.focus()
    next?.scrollIntoView({ block: 'nearest' })
  }
  onPlainKey({
    j: () => to(1),
    k: () => to(-1),
    o: () => rows()[Math.max(at(), 0)]?.querySelector<HTMLElement>('[aria-haspopup=menu]')?.click(),
  })
}

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

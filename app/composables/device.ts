/** What this device does for whoever stands at it: each kept by the device, each wants a secure context. */
export const useScreenKept = () => useKept('screen', { on: true })
export const useNotifyKept = () => useKept('notify', { on: false })

/** Why the device cannot do it, as a word; null where it can. */
export const cannotStayOn = () => {
  if (!isSecureContext) return 'insecure' as const
  return 'wakeLock' in navigator ? null : ('unable' as const)
}
export const cannotNotify = () => {
  if (!isSecureContext) return 'insecure' as const
  if (!('Notification' in window)) return 'unable' as const
  return Notification.permission === 'denied' ? ('denied' as const) : null
}

/** The screen does not go dark while a step is in hand. */
export function useScreenOn(running: () => boolean) {
  const kept = useScreenKept()
  const lock = useWakeLock()
  // asked for by its reasons alone: the lock's own state changes with each request
  watch(
    () => lock.isSupported.value && kept.value.on && running(),
    on => {
      // a device that is low on power may refuse; the page goes on
      if (on) lock.request('screen').catch(() => {})
      else void lock.release()
    },
    { immediate: true },
  )
}

/** Tells an alarm while the page is behind others; a page in sight rings by itself. */
export async function notifyAlarm(title: string, body: string) {
  if (!document.hidden || cannotNotify() || Notification.permission !== 'granted') return
  const how = { body, tag: title, renotify: true, requireInteraction: true } as NotificationOptions
  try {
    const worker = await navigator.serviceWorker?.getRegistration()
    if (worker) await worker.showNotification(title, how)
    else new Notification(title, how).onclick = () => window.focus()
  } catch {
    /* some devices notify for installed pages only */
  }
}

const INSTALLED = '(display-mode: standalone), (display-mode: fullscreen)'
/**
 * The back key of a tablet ends an installed page at its first entry: below that lies another here, from which it comes
 * back up, so that a touch by mistake leaves nobody outside. Browsers pass over entries that were made without a touch:
 * it is laid at the first one, and two keys in a row still leave.
 */
export function useStaysInside() {
  const up = () => {
    const state = history.state as { position?: number; floor?: boolean }
    if (!state.floor) history.replaceState({ ...state, floor: true }, '')
    history.pushState({ ...state, floor: false, position: (state.position ?? 0) + 1 }, '')
  }
  const lay = () => {
    if (matchMedia(INSTALLED).matches && history.length === 1) up()
  }
  useEventListener('pointerdown', lay, { once: true, capture: true })
  useEventListener('popstate', ({ state }: PopStateEvent) => {
    if ((state as { floor?: boolean } | null)?.floor) up()
  })
}

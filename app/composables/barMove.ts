import { type DayColumn, momentAt, xOf } from '#core/timetable/axis'

/** Where a bar would be put. */
export interface Target {
  start_ms: number
  lane: number
}
const FAR_PX = 6
const QUARTER_MS = 900_000

/**
 * Moving a bar of the timetable by mouse or pen, or by arrow keys; nothing counts before `put` is answered. Fingers
 * scroll: they hold a step at another time in its box.
 */
export function useBarMove(
  columns: () => readonly DayColumn[],
  lanes: () => number,
  put: (bar: Bar, to: Target) => void,
  may: () => boolean,
) {
  const moved = shallowRef<{ bar: Bar; to: Target } | null>(null)
  let held: { bar: Bar; lane: number; x: number; y: number; off: number; width: number } | null = null
  let dragged = false
  const laneAt = (y: number) =>
    [...document.querySelectorAll('[data-lane]')].findIndex(l => y <= l.getBoundingClientRect().bottom)
  function down(event: PointerEvent, bar: Bar, lane: number) {
    const line = (event.currentTarget as HTMLElement).parentElement!
    dragged = false
    if (!may() || event.pointerType === 'touch' || event.button !== 0 || bar.state !== 'planned') return
    const { left, width } = line.getBoundingClientRect()
    const off = (event.clientX - left) / width - xOf(columns(), bar.start_ms)
    held = { bar, lane, x: event.clientX - left, y: event.clientY, off, width }
    const stop = () => {
      removeEventListener('pointermove', move)
      removeEventListener('pointerup', up)
    }
    const move = (e: PointerEvent) => {
      if (!held) return
      const x = e.clientX - left
      if (!dragged && Math.hypot(x - held.x, e.clientY - held.y) < FAR_PX) return
      dragged = true
      const over = laneAt(e.clientY)
      const start_ms = momentAt(columns(), x / held.width - held.off)
      moved.value = { bar, to: { start_ms, lane: over < 0 ? lanes() - 1 : over } }
    }
    const up = () => {
      stop()
      held = null
      if (moved.value) put(moved.value.bar, moved.value.to)
    }
    addEventListener('pointermove', move)
    addEventListener('pointerup', up, { once: true })
  }
  /** A click that ends a drag opens nothing. */
  const wasDragged = () => dragged
  const STEPS: Record<string, [quarters: number, lanes: number]> = {
    ...{ ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] },
  }
  function key(event: KeyboardEvent, bar: Bar, lane: number) {
    const at = moved.value?.bar === bar ? moved.value.to : { start_ms: bar.start_ms, lane }
    const step = STEPS[event.key]
    if (step && may() && bar.state === 'planned') {
      event.preventDefault()
      const next = Math.min(lanes() - 1, Math.max(0, at.lane + step[1]))
      moved.value = { bar, to: { start_ms: at.start_ms + step[0] * QUARTER_MS, lane: next } }
    }
    if (event.key === 'Escape') moved.value = null
    if (event.key === 'Enter' && moved.value?.bar === bar) {
      event.preventDefault()
      put(bar, at)
    }
  }
  const back = () => (moved.value = null)
  return { moved, down, key, wasDragged, back }
}

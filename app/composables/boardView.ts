import type { Ref } from 'vue'

interface Point {
  x: number
  y: number
}
const MOST = 8
const between = (a: Point, b: Point) => ({ x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 })
const distance = (a: Point, b: Point) => Math.max(1, Math.hypot(a.x - b.x, a.y - b.y))
const clamp = (v: number, low: number, high: number) => Math.min(Math.max(v, low), high)

/**
 * What of a drawing is in sight: two fingers (or Ctrl and the wheel) bring it nearer and move it, up to eight times.
 * Lengths in the drawing's own units.
 */
export function useBoardView(svg: Ref<SVGSVGElement | null>, whole: Ref<{ w: number; h: number }>) {
  const zoom = ref(1)
  const corner = ref<Point>({ x: 0, y: 0 })
  const fingers = new Map<number, Point>()
  let pinch: { apart: number; zoom: number; held: Point } | null = null
  const viewBox = computed(() => {
    const { w, h } = whole.value
    return `${corner.value.x} ${corner.value.y} ${w / zoom.value} ${h / zoom.value}`
  })
  /** Where a point of the screen lies in the drawing. */
  function at({ x, y }: Point): Point {
    const box = svg.value!.getBoundingClientRect()
    const { w, h } = whole.value
    return {
      x: corner.value.x + ((x - box.left) / box.width) * (w / zoom.value),
      y: corner.value.y + ((y - box.top) / box.height) * (h / zoom.value),
    }
  }
  /** Brings it so near, with `held` of the drawing under `on` of the screen. */
  function bring(near: number, held: Point, on: Point) {
    const box = svg.value!.getBoundingClientRect()
    const { w, h } = whole.value
    zoom.value = clamp(near, 1, MOST)
    const [seenW, seenH] = [w / zoom.value, h / zoom.value]
    corner.value = {
      x: clamp(held.x - ((on.x - box.left) / box.width) * seenW, 0, w - seenW),
      y: clamp(held.y - ((on.y - box.top) / box.height) * seenH, 0, h - seenH),
    }
  }
  const spot = ({ clientX, clientY }: MouseEvent) => ({ x: clientX, y: clientY })
  /** True while two fingers hold the drawing: nothing is placed then. */
  function press(event: PointerEvent): boolean {
    if (event.pointerType !== 'touch') return false
    fingers.set(event.pointerId, spot(event))
    const [a, b] = [...fingers.values()]
    if (!b) return false
    pinch = { apart: distance(a!, b), zoom: zoom.value, held: at(between(a!, b)) }
    return true
  }
  function move(event: PointerEvent): boolean {
    if (fingers.has(event.pointerId)) fingers.set(event.pointerId, spot(event))
    const [a, b] = [...fingers.values()]
    if (!pinch || !b) return pinch !== null
    bring((pinch.zoom * distance(a!, b)) / pinch.apart, pinch.held, between(a!, b))
    return true
  }
  /** True for both fingers of a pinch, so that lifting one places nothing. */
  function release(event: PointerEvent): boolean {
    fingers.delete(event.pointerId)
    const pinched = pinch !== null
    if (fingers.size === 0) pinch = null
    return pinched
  }
  function wheel(event: WheelEvent) {
    if (!event.ctrlKey) return
    event.preventDefault()
    bring(zoom.value * Math.exp(-event.deltaY / 200), at(spot(event)), spot(event))
  }
  function reset() {
    zoom.value = 1
    corner.value = { x: 0, y: 0 }
  }
  return { zoom, viewBox, at, press, move, release, wheel, reset }
}

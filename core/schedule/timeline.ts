/** What is free, and what is taken: of hands, rooms and supports. All moments are epoch milliseconds. */
import { GRID_MIN, type Placed, type Room, type Span, type Support, type Task } from './model'

const MIN_MS = 60_000
const GRID_MS = GRID_MIN * MIN_MS
export const gridUp = (at_ms: number): number => Math.ceil(at_ms / GRID_MS) * GRID_MS
export const gridDown = (at_ms: number): number => Math.floor(at_ms / GRID_MS) * GRID_MS
/** Whole quarters of an hour, one at least. */
export const length_ms = (minutes: number): number => Math.max(GRID_MS, gridUp(minutes * MIN_MS))

export const endOf = (parts: readonly Span[]): number => parts[parts.length - 1]![1]

/** The first place in a list of gaps or spans, in order, that ends after a moment. */
function firstAfter(ends: (i: number) => number, count: number, at_ms: number): number {
  let [low, high] = [0, count]
  while (low < high) {
    const middle = (low + high) >> 1
    if (ends(middle) > at_ms) high = middle
    else low = middle + 1
  }
  return low
}

interface Gap {
  from: number
  to: number
  /** of which opening it is a part */
  span: number
  /** it begins with an opening, it ends with a closing: work may be laid aside there */
  opens: boolean
  closes: boolean
}
/** The free time of one pair of hands. */
export class FreeTime {
  private readonly gaps: Gap[]
  private readonly taken: { at: number; gap: Gap; rest: number }[] = []
  /** how many gaps each taking changed */
  private readonly takings: number[] = []

  constructor(spans: readonly Span[], from_ms: number) {
    this.gaps = spans
      .map(([from, to]): [number, number] => [gridUp(Math.max(from, from_ms)), gridDown(to)])
      .filter(([from, to]) => to > from)
      .map(([from, to], span) => ({ from, to, span, opens: true, closes: true }))
  }

  /**
   * The earliest parts of work of a length, from a moment on. Work that is not `whole` is laid aside at a closing and
   * goes on at the next opening. Null where no time is left.
   */
  earliest(from_ms: number, length: number, whole: boolean): Span[] | null {
    const { gaps } = this
    for (let i = firstAfter(k => gaps[k]!.to, gaps.length, from_ms); i < gaps.length; i++) {
      const { from, to } = gaps[i]!
      const start = from > from_ms ? from : from_ms
      if (start + length <= to) return [[start, start + length]]
      if (whole) continue
      const parts = this.over(i, start, length)
      if (parts) return parts
    }
    return null
  }

  private over(first: number, start: number, length: number): Span[] | null {
    const parts: Span[] = []
    let left = length
    for (let i = first; i < this.gaps.length; i++) {
      const gap = this.gaps[i]!
      if (i > first && (!gap.opens || gap.span !== this.gaps[i - 1]!.span + 1)) return null
      const from = i === first ? start : gap.from
      const to = Math.min(gap.to, from + left)
      parts.push([from, to])
      left -= to - from
      if (left <= 0) return parts
      if (!gap.closes) return null
    }
    return null
  }

  take(parts: readonly Span[]): void {
    const before = this.taken.length
    for (const [from, to] of parts) {
      const at = firstAfter(k => this.gaps[k]!.to, this.gaps.length, from)
      const gap = this.gaps[at]
      if (!gap || gap.from >= to) continue
      // written out: it is done more often than anything else
      const left =
        gap.from < from ? { from: gap.from, to: from, span: gap.span, opens: gap.opens, closes: false } : null
      const right = to < gap.to ? { from: to, to: gap.to, span: gap.span, opens: false, closes: gap.closes } : null
      if (left && right) {
        this.gaps[at] = right
        this.gaps.splice(at, 0, left)
      } else if (left ?? right) this.gaps[at] = (left ?? right)!
      else this.gaps.splice(at, 1)
      this.taken.push({ at, gap, rest: (left ? 1 : 0) + (right ? 1 : 0) })
    }
    this.takings.push(this.taken.length - before)
  }
  /** Gives back what was taken last. */
  give(): void {
    for (let n = this.takings.pop()!; n > 0; n--) {
      const { at, gap, rest } = this.taken.pop()!
      if (rest === 1) this.gaps[at] = gap
      else this.gaps.splice(at, rest, gap)
    }
  }
}

/** Spans in order of their beginning, which may overlap; the longest says how far back one has to look. */
class Spans<Extra> {
  private readonly all: { from: number; to: number; extra: Extra }[] = []
  private readonly put: number[] = []
  private longest = 0

  private place(at_ms: number): number {
    let [low, high] = [0, this.all.length]
    while (low < high) {
      const middle = (low + high) >> 1
      if (this.all[middle]!.from >= at_ms) high = middle
      else low = middle + 1
    }
    return low
  }
  add(from: number, to: number, extra: Extra): void {
    const at = this.place(from)
    this.all.splice(at, 0, { from, to, extra })
    this.put.push(at)
    this.longest = Math.max(this.longest, to - from)
  }
  /** Takes out what was added last. */
  back(): void {
    this.all.splice(this.put.pop()!, 1)
  }
  /** Looks at each that overlaps, the latest first, until one is wanted. */
  find(from: number, to: number, wanted: (extra: Extra, until: number) => boolean): number | null {
    for (let i = this.place(to) - 1; i >= 0; i--) {
      const one = this.all[i]!
      if (one.from <= from - this.longest) return null
      if (one.to > from && wanted(one.extra, one.to)) return one.to
    }
    return null
  }
}
const ANY = () => true

interface Held {
  area_m2: number
  jobId: number
}
type Where = Pick<Placed, 'parts' | 'start_ms' | 'end_ms' | 'jobId'>

/** What happens in one room. */
export class RoomTime {
  /** with the cleaning after it */
  private readonly dust = new Spans<null>()
  /** until dust no longer sticks */
  private readonly wet = new Spans<null>()
  /** hands at it, with what goes on */
  private readonly laid = new Spans<string | null>()
  private readonly held: { support: Support; by: Spans<Held> }[]
  private readonly change: number

  constructor(readonly room: Room) {
    this.held = room.supports.map(support => ({ support, by: new Spans<Held>() }))
    this.change = room.changeOver_min * MIN_MS
  }

  /** Null where it may be done then; else the earliest moment at which it is worth trying again. */
  clash(task: Task, jobId: number, parts: readonly Span[]): number | null {
    const { change } = this
    for (const [shuts, opens] of this.room.shut)
      if (parts.some(([from, to]) => from < opens && shuts < to)) return opens
    if (task.makes === 'other') return null
    if (task.makes === 'dust') {
      for (const [from, to] of parts) {
        const until = this.wet.find(from, to + change, ANY)
        if (until !== null) return until
      }
      return null
    }
    const from = parts[0]![0]
    const end = endOf(parts)
    for (const [shuts, opens] of this.room.closedTo[task.air ?? ''] ?? [])
      if (shuts <= from && from < opens) return opens
    const to = end + task.wet_min * MIN_MS
    const dusty = this.dust.find(from, to, ANY)
    if (dusty !== null) return dusty
    const other = this.room.oneAtATime ? this.laid.find(from, end, product => product !== task.product) : null
    if (other !== null) return other
    return this.held.length === 0 || this.freeSupport(task, jobId, from, to) ? null : this.nextFree(from, to)
  }
  /** When the first of what lies there then is taken off. */
  private nextFree(from: number, to: number): number {
    let first = Infinity
    for (const { by } of this.held)
      by.find(from, to, (_, until) => {
        first = Math.min(first, until)
        return false
      })
    return first
  }
  /** The support that still has room for it: the one that is kept for it, else the smallest. */
  private freeSupport(task: Task, jobId: number, from: number, to: number, kept = -1): Support | null {
    let best: Support | null = null
    for (const { support, by } of this.held) {
      const larger = best !== null && (best.area_m2 ?? Infinity) <= (support.area_m2 ?? Infinity)
      if (!carries(support, task) || (larger && support.id !== kept)) continue
      let area = task.area_m2
      const { area_m2 } = support
      const full = by.find(from, to, one => {
        area += one.area_m2
        return area_m2 === null ? one.jobId !== jobId : area > area_m2 + 1e-9
      })
      if (full !== null) continue
      if (support.id === kept) return support
      best = support
    }
    return best
  }
  /** The support that it goes on; null where there are none. */
  supportFor(task: Task, jobId: number, parts: readonly Span[], kept: number): number | null {
    if (task.makes !== 'wet' || this.held.length === 0) return null
    return this.freeSupport(task, jobId, parts[0]![0], endOf(parts) + task.wet_min * MIN_MS, kept)?.id ?? null
  }

  take(task: Task, { parts, jobId, start_ms, end_ms }: Where, supportId: number | null): void {
    if (task.makes === 'dust') for (const [from, to] of parts) this.dust.add(from, to + this.change, null)
    if (task.makes !== 'wet') return
    const to = end_ms + task.wet_min * MIN_MS
    this.wet.add(start_ms, to, null)
    this.laid.add(start_ms, end_ms, task.product)
    this.held.find(h => h.support.id === supportId)?.by.add(start_ms, to, { area_m2: task.area_m2, jobId })
  }

  /** Takes back what was taken last. */
  give(task: Task, { parts }: Where, supportId: number | null): void {
    if (task.makes === 'dust') for (const _ of parts) this.dust.back()
    if (task.makes !== 'wet') return
    this.wet.back()
    this.laid.back()
    this.held.find(h => h.support.id === supportId)?.by.back()
  }
}

/** May a task ever be done in a room? */
export const takesTask = ({ allows, supports }: Room, task: Task): boolean =>
  allows[task.makes] && (task.makes !== 'wet' || supports.length === 0 || supports.some(s => carries(s, task)))

const carries = (support: Support, task: Task): boolean =>
  (support.area_m2 === null || task.area_m2 <= support.area_m2 + 1e-9) &&
  (support.length_mm === null || task.length_mm <= support.length_mm)

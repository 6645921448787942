/**
 * Work in sections: what goes on stays workable for a while, and is taken off section by section before that ends. One
 * pair of hands. Minutes.
 */

/** What the hands do, and when they begin, from the first section on. */
export interface Turn {
  at_min: number
  what: 'on' | 'off'
  no: number
}
export interface Sections {
  count: number
  /** each: minutes to put it on, and to take it off */
  on_min: number
  off_min: number
  /** a section may come off so long after it went on, and must be off so long after that it began */
  opens_min: number
  closes_min: number
  turns: Turn[]
  /** when the first is taken off, when the last has gone on, when all is off */
  firstOff_min: number
  lastOn_min: number
  span_min: number
}

/** Sections beyond this are no plan. */
const MOST = 400
interface Wet {
  no: number
  opens: number
  closes: number
}

/** Would all that is wet, and one more, still come off in time if the hands are free at `now`? */
function holds(wet: readonly Wet[], fresh: Wet, now: number, off_min: number): boolean {
  let t = now
  const inTime = (w: Wet) => {
    t = Math.max(t, w.opens) + off_min
    return t <= w.closes + 1e-9
  }
  return wet.every(inTime) && inTime(fresh)
}

interface Asked {
  on_min: number
  off_min: number
  opens_min: number
  closes_min: number
}
/** The order of the work for so many sections: the next goes on whenever all that is wet still comes off in time. */
function worked(q: Asked, count: number): Sections {
  const [on_min, off_min] = [q.on_min / count, q.off_min / count]
  const turns: Turn[] = []
  const wet: Wet[] = []
  let [now, next, lastOn] = [0, 1, 0]
  while (next <= count || wet.length > 0) {
    const fresh = { no: next, opens: now + on_min + q.opens_min, closes: now + q.closes_min }
    const first = wet[0]
    const ready = first !== undefined && first.opens <= now
    const goesOn = next <= count && !ready && holds(wet, fresh, now + on_min, off_min)
    if (goesOn || !first) {
      turns.push({ at_min: now, what: 'on', no: next++ })
      wet.push(fresh)
      lastOn = now += on_min
    } else {
      now = Math.max(now, first.opens)
      turns.push({ at_min: now, what: 'off', no: first.no })
      wet.shift()
      now += off_min
    }
  }
  const firstOff_min = turns.find(t => t.what === 'off')!.at_min
  return { ...q, count, on_min, off_min, turns, firstOff_min, lastOn_min: lastOn, span_min: now }
}

/** Going to another section and looking costs this much, minutes (shop default): no more of them than help. */
const EACH_MIN = 4
/** So many counts are tried, from the fewest to twice as many. */
const TRIED = 5
/**
 * Sections of one size that keep the window, through soonest. Null where no size would: the window is shorter than its
 * own wait.
 */
export function inSections(q: Asked): Sections | null {
  const room = q.closes_min - q.opens_min
  if (!(room > 0)) return null
  const least = Math.max(1, Math.ceil((q.on_min + q.off_min) / room - 1e-9))
  if (least > MOST) return null
  const spread = Math.min(least, MOST - least) / (TRIED - 1)
  const counts = new Set(Array.from({ length: TRIED }, (_, i) => least + Math.round(i * spread)))
  const cost = (s: Sections) => s.span_min + EACH_MIN * s.count
  return [...counts].map(n => worked(q, n)).reduce((best, s) => (cost(s) < cost(best) ? s : best))
}

/** As many of these sections as go on and come off again in so many minutes; null where not one does. */
export function sectionsWithin(s: Sections, count: number, room_min: number): Sections | null {
  const first = (n: number) => worked({ ...s, on_min: s.on_min * n, off_min: s.off_min * n }, n)
  let [most, beyond] = [0, count + 1]
  while (beyond - most > 1) {
    const middle = Math.floor((most + beyond) / 2)
    if (first(middle).span_min <= room_min) most = middle
    else beyond = middle
  }
  return most > 0 ? first(most) : null
}

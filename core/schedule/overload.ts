/** Where there is more work than hands, whatever the order: what is due by a day against the hours until then. */
import { type Shop, type Skill, SKILLS, type Task } from './model'

const MIN_MS = 60_000
const HOUR_MS = 3_600_000

export interface Overload {
  /** by the day on which this is due */
  until_ms: number
  /** null: of any kind */
  skill: Skill | null
  need_h: number
  there_h: number
}

/** The worst of all days and skills, by hours that are missing; null: hands enough, if nothing had to dry. */
export function overload(shop: Shop): Overload | null {
  const dues = [...new Set(shop.jobs.flatMap(j => j.due_ms ?? []))].filter(d => d > shop.now_ms).sort((a, b) => a - b)
  let worst: Overload | null = null
  for (const skill of [null, ...SKILLS]) {
    const hands = shop.hands.filter(h => skill === null || !h.skills || h.skills.has(skill))
    const counts = (t: Task) => t.hands > 0 && !t.ifYes && (skill === null || t.skill === skill)
    for (const until_ms of dues) {
      const its = shop.jobs.filter(j => j.due_ms !== null && j.due_ms <= until_ms)
      const need_h = its.flatMap(j => j.tasks).reduce((sum, t) => sum + (counts(t) ? t.minutes : 0), 0) / 60
      const there_ms = hands
        .flatMap(h => h.spans)
        .reduce((sum, [from, to]) => sum + Math.max(0, Math.min(to, until_ms) - Math.max(from, shop.now_ms)), 0)
      const there_h = there_ms / HOUR_MS
      const misses = need_h - there_h
      if (misses * HOUR_MS > MIN_MS && misses > (worst ? worst.need_h - worst.there_h : 0))
        worst = { until_ms, skill, need_h, there_h }
    }
  }
  return worst
}

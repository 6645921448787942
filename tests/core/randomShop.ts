/** Made-up shops for the schedule, of all shapes, by a seed. */
import { chance, type Hand, type Job, type Room, type Shop, SKILLS, type Span, type Task } from '#core/schedule'

const MIN_MS = 60_000
const DAY_MS = 86_400_000
/** A Monday at midnight, UTC. */
export const MONDAY_MS = Date.UTC(2026, 10, 30)

export interface Size {
  jobs: number
  tasks: number
  hands: number
  /** everything at once: windows, words, pins, racks */
  plain?: boolean
}

export function randomShop(seed: number, size: Size): Shop {
  const random = chance(seed)
  const int = (least: number, most: number) => least + Math.floor(random() * (most - least + 1))
  const maybe = (p: number) => !size.plain && random() < p
  const pick = <T>(all: readonly T[]): T => all[int(0, all.length - 1)]!
  const now_ms = MONDAY_MS + int(0, 20) * 37 * MIN_MS
  const days = Math.max(60, Math.ceil((size.jobs * size.tasks) / size.hands))

  const handOf = (id: number): Hand => {
    const [from, noon, to] = [int(6, 9) * 60 + pick([0, 10, 30]), int(11, 13) * 60, int(15, 18) * 60]
    const spans: Span[] = []
    for (let d = 0; d < days; d++) {
      if (d % 7 > 4 || maybe(0.08)) continue
      const at = (min: number) => MONDAY_MS + d * DAY_MS + min * MIN_MS
      if (maybe(0.5)) spans.push([at(from), at(to)])
      else spans.push([at(from), at(noon)], [at(noon + pick([30, 45, 60])), at(to)])
    }
    return { id, skills: id === 1 || !maybe(0.4) ? null : new Set(SKILLS.filter(() => random() < 0.6)), spans }
  }
  const airs = ['oil', 'lacquer']
  const roomOf = (id: number): Room => ({
    id,
    allows: id === 1 ? { dust: true, wet: true, other: true } : { dust: maybe(0.4), wet: true, other: maybe(0.5) },
    changeOver_min: pick([0, 30, 60]),
    oneAtATime: maybe(0.4),
    supports: maybe(0.4)
      ? [
          { id: id * 10, area_m2: 8, length_mm: 2500 },
          { id: id * 10 + 1, area_m2: null, length_mm: null },
        ]
      : [],
    closedTo: Object.fromEntries(
      airs.map(air => [
        air,
        Array.from({ length: maybe(0.5) ? 10 : 0 }, (_, i): Span => {
          const from = MONDAY_MS + i * DAY_MS + int(6, 20) * 60 * MIN_MS
          return [from, from + int(1, 9) * 60 * MIN_MS]
        }),
      ]),
    ),
    shut: Array.from({ length: id > 1 && maybe(0.3) ? 4 : 0 }, (_, i): Span => {
      const from = MONDAY_MS + i * 2 * DAY_MS + int(6, 15) * 60 * MIN_MS
      return [from, from + int(1, 6) * 60 * MIN_MS]
    }),
  })
  const jobOf = (id: number): Job => {
    const tasks: Task[] = []
    const count = int(Math.ceil(size.tasks / 2), size.tasks)
    const word = maybe(0.15) ? int(1, count) : Infinity
    for (let i = 0; i < count; i++) {
      const before = tasks.at(-1)
      const other = i > 2 && maybe(0.2) ? tasks[int(0, i - 3)] : undefined
      const makes = pick(['dust', 'wet', 'wet', 'other'] as const)
      const isWord = i === word
      const opens = before !== undefined && before.makes === 'wet' && before.whole && maybe(0.7)
      const dry_min = before?.makes === 'wet' ? before.wet_min * pick([1, 2]) : pick([0, 0, 15])
      tasks.push({
        ...{ id: `${id}.${i}`, minutes: isWord ? int(0, 2000) : int(5, 300), hands: isWord ? 0 : 1, makes },
        ...{
          skill: maybe(0.3) ? pick(SKILLS) : null,
          product: pick(['varnish', 'oil', 'lacquer']),
          air: pick([...airs, null]),
        },
        ...{
          wet_min: makes === 'wet' ? pick([30, 120, 480]) : 0,
          area_m2: 0.2 + random() * 4,
          length_mm: int(300, 2400),
        },
        whole: makes === 'wet' && maybe(0.4),
        after: [
          ...(before
            ? [
                {
                  from: before.id,
                  min_min: dry_min,
                  max_min: opens ? before.minutes + dry_min + pick([600, 2000]) : null,
                },
              ]
            : []),
          ...(other ? [{ from: other.id, min_min: 60, max_min: null }] : []),
        ],
        opens_ms: maybe(0.05) ? now_ms + int(1, 90) * 60 * MIN_MS : null,
        closes_ms: null,
        ifYes: i >= word,
        begun: null,
        pin: null,
        last: null,
      })
      const task = tasks.at(-1)!
      if (task.whole) task.minutes = Math.min(task.minutes, 100)
    }
    const first = tasks[0]!
    if (maybe(0.1) && !first.ifYes)
      first.begun = { start_ms: now_ms - int(0, 90) * MIN_MS, handId: int(1, size.hands), roomId: 1 }
    if (maybe(0.1) && !tasks.at(-1)!.ifYes)
      tasks.at(-1)!.pin = { start_ms: now_ms + int(1, 20 * 24) * 60 * MIN_MS, handId: null, roomId: null }
    const due_ms = random() < 0.8 ? now_ms + int(2, Math.max(10, days / 3)) * DAY_MS : null
    return { id, due_ms, weight: pick([1, 1, 1, 3]), tasks }
  }
  return {
    now_ms,
    until_ms: MONDAY_MS + days * DAY_MS,
    hands: Array.from({ length: size.hands }, (_, i) => handOf(i + 1)),
    rooms: Array.from({ length: size.plain ? 1 : int(1, 3) }, (_, i) => roomOf(i + 1)),
    jobs: Array.from({ length: size.jobs }, (_, i) => jobOf(i + 1)),
  }
}

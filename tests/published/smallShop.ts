/** Small plain shops, made up by a seed, for which an optimum can be proved. */
import { chance, type Shop, type Task } from '#core/schedule'

const MIN_MS = 60_000
const MONDAY_MS = Date.UTC(2026, 10, 30)

/** Three or four jobs of three tasks for two people within two days; some with a wait, some with a window. */
export function smallShop(seed: number): Shop {
  const random = chance(seed)
  const pick = <T>(all: readonly T[]): T => all[Math.floor(random() * all.length)]!
  const at = (day: number, hour: number) => MONDAY_MS + (day * 24 + hour) * 60 * MIN_MS
  const task = (id: string, before: string | null): Task => {
    const max_min = random() < 0.3 ? pick([240, 300]) : null
    return {
      ...{ id, minutes: pick([30, 45, 60, 90]), hands: 1, skill: random() < 0.3 ? 'polish' : null, makes: 'other' },
      ...{ product: null, air: null, wet_min: 0, area_m2: 1, length_mm: 1, whole: true, ifYes: false },
      ...{ opens_ms: null, closes_ms: null, begun: null, pin: null, last: null },
      after: before ? [{ from: before, min_min: pick([0, 15, 60]), max_min }] : [],
    }
  }
  const jobOf = (id: number) => {
    const tasks: Task[] = []
    for (let i = 0; i < 3; i++) tasks.push(task(`${id}.${i}`, tasks.at(-1)?.id ?? null))
    return { id, due_ms: at(0, pick([10, 12, 15])), weight: pick([1, 2]), tasks }
  }
  return {
    ...{ now_ms: at(0, 8), until_ms: at(3, 0) },
    hands: [
      { id: 1, skills: null, spans: [0, 1].map(d => [at(d, 8), at(d, 16)] as const) },
      { id: 2, skills: new Set(['repair'] as const), spans: [0, 1].map(d => [at(d, 8), at(d, 12)] as const) },
    ],
    rooms: [
      {
        ...{ id: 1, allows: { dust: true, wet: true, other: true }, changeOver_min: 0, oneAtATime: false },
        ...{ supports: [], closedTo: {}, shut: [] },
      },
    ],
    jobs: Array.from({ length: 3 + (seed % 2) }, (_, i) => jobOf(i + 1)),
  }
}

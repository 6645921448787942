/**
 * The best schedule that there is of a small plain shop, by a mixed integer program over time: one binary for each
 * task, pair of hands and quarter of an hour.
 */
import highsLoader from 'highs'
import { FLOW_WEIGHT, GRID_MIN, type Shop } from '#core/schedule'

const SLOT_MS = GRID_MIN * 60_000
const slotsIn = (minutes: number) => Math.max(1, Math.ceil(minutes / GRID_MIN))
const sum = (terms: string[]) => terms.join(' + ') || '0'

export interface Optimum {
  status: string
  hours: number
}
/**
 * Σ weight × hours late + 0.01 × hours until ready, as small as can be. Work that is laid aside over a closing is not
 * in the program: every task of the shop must fit into an opening and be `whole`, in one room without dust or wet.
 */
export async function optimumOf(shop: Shop, seconds: number): Promise<Optimum> {
  const highs = await highsLoader()
  const tasks = shop.jobs.flatMap(job => job.tasks.map(task => ({ task, job })))
  const slotOf = (ms: number) => Math.round((ms - shop.now_ms) / SLOT_MS)
  const starts = tasks.map(({ task }, t) => {
    const length = slotsIn(task.minutes)
    return shop.hands.flatMap((hand, h) => {
      if (task.skill && hand.skills && !hand.skills.has(task.skill)) return []
      return hand.spans.flatMap(([from, to]) => {
        const [first, last] = [Math.max(0, slotOf(from)), slotOf(to) - length]
        return Array.from({ length: Math.max(0, last - first + 1) }, (_, i) => ({ t, h, s: first + i }))
      })
    })
  })
  const all = starts.flat()
  const name = ({ t, h, s }: (typeof all)[number]) => `x_${t}_${h}_${s}`
  const at = new Map(tasks.map(({ task }, i) => [task.id, i]))
  const once = starts.map((of, t) => `o${t}: ${sum(of.map(name))} = 1`)
  const bySlot = new Map<string, string[]>()
  for (const x of all)
    for (let k = 0; k < slotsIn(tasks[x.t]!.task.minutes); k++) {
      const key = `${x.h}_${x.s + k}`
      bySlot.set(key, [...(bySlot.get(key) ?? []), name(x)])
    }
  const hands = [...bySlot].map(([key, names]) => `h${key}: ${sum(names)} <= 1`)
  const startOf = (t: number) => starts[t]!.filter(x => x.s > 0).map(x => `${x.s} ${name(x)}`)
  const minus = (t: number) =>
    startOf(t)
      .map(term => `- ${term}`)
      .join(' ')
  const ties = tasks.flatMap(({ task }, t) =>
    task.after.flatMap(({ from, min_min, max_min }, i) => {
      const f = at.get(from)!
      const least = slotsIn(tasks[f]!.task.minutes) + Math.ceil(min_min / GRID_MIN)
      const lines = [`t${t}_${i}: ${sum(startOf(t))} ${minus(f)} >= ${least}`]
      if (max_min !== null)
        lines.push(`m${t}_${i}: ${sum(startOf(t))} ${minus(f)} <= ${Math.floor(max_min / GRID_MIN)}`)
      return lines
    }),
  )
  const ends = tasks.map(({ task, job }, t) => `e${t}: c${job.id} ${minus(t)} >= ${slotsIn(task.minutes)}`)
  const late = shop.jobs
    .filter(j => j.due_ms !== null)
    .map(j => `l${j.id}: d${j.id} - c${j.id} >= ${-((j.due_ms! - shop.now_ms) / SLOT_MS)}`)
  const hour = GRID_MIN / 60
  const cost = shop.jobs.flatMap(j => [
    `${FLOW_WEIGHT * hour} c${j.id}`,
    ...(j.due_ms === null ? [] : [`${j.weight * hour} d${j.id}`]),
  ])
  const program = [
    ...['Minimize', `obj: ${sum(cost)}`, 'Subject To', ...once, ...hands, ...ties, ...ends, ...late],
    ...['Binary', ...all.map(name), 'End'],
  ].join('\n')
  const found = highs.solve(program, { time_limit: seconds, mip_rel_gap: 1e-6 })
  return { status: found.Status, hours: found.ObjectiveValue }
}

/** Tasks with what comes before them, and the groups that must be placed together because windows tie them. */
import type { Job, Shop, Task } from './model'
import { takesTask } from './timeline'

export interface Tie {
  /** place of the other task in `Graph.tasks` */
  at: number
  min_min: number
  max_min: number | null
}
export interface Node {
  task: Task
  job: Job
  before: Tie[]
  group: number
  /** who and which rooms may take it, as places in the shop's lists */
  hands: readonly number[]
  rooms: readonly number[]
}
export interface Group {
  /** places of its tasks, each after all that it follows */
  members: number[]
  /** groups before and after it */
  before: number[]
  after: number[]
  job: Job
  ifYes: boolean
}
export interface Graph {
  nodes: Node[]
  groups: Group[]
}

/**
 * Who may do a task, as places in the shop's list: whoever can do least else first, so that others stay free.
 */
const handsFor = ({ hands }: Shop, { skill }: Task): number[] =>
  hands
    .flatMap((h, i) => (!skill || !h.skills || h.skills.has(skill) ? [i] : []))
    .sort((a, b) => (hands[a]!.skills?.size ?? Infinity) - (hands[b]!.skills?.size ?? Infinity) || a - b)
const roomsFor = ({ rooms }: Shop, task: Task): number[] => rooms.flatMap((r, i) => (takesTask(r, task) ? [i] : []))

/** Union of numbers, by the smallest of each. */
class Union {
  private readonly over: number[]
  constructor(count: number) {
    this.over = Array.from({ length: count }, (_, i) => i)
  }
  of(i: number): number {
    let at = i
    while (this.over[at] !== at) at = this.over[at] = this.over[this.over[at]!]!
    return at
  }
  join(a: number, b: number): void {
    const [x, y] = [this.of(a), this.of(b)]
    this.over[Math.max(x, y)] = Math.min(x, y)
  }
}

/**
 * A job's tasks in groups: those tied by a window, and what lies between them.
 * @param nodes the job's own, in order
 * @param first place of the first of them
 */
function unite(nodes: readonly Node[], first: number): Union {
  const union = new Union(nodes.length)
  nodes.forEach((node, i) => {
    for (const tie of node.before) if (tie.max_min !== null) union.join(i, tie.at - first)
  })
  // whoever follows a group and is followed by it belongs to it
  for (let grew = true; grew;) {
    grew = false
    const reach = nodes.map(() => new Set<number>())
    nodes.forEach((node, i) => {
      for (const tie of node.before) {
        const from = tie.at - first
        reach[i]!.add(union.of(from))
        for (const g of reach[from]!) reach[i]!.add(g)
      }
    })
    nodes.forEach((node, i) => {
      for (const tie of node.before) {
        const from = tie.at - first
        if (union.of(i) !== union.of(from) && reach[from]!.has(union.of(i))) {
          union.join(i, from)
          grew = true
        }
      }
    })
  }
  return union
}

/** @throws RangeError for a task that follows one that its job does not have before it. */
export function graphOf(shop: Shop): Graph {
  const nodes: Node[] = []
  const groups: Group[] = []
  for (const job of shop.jobs) {
    const first = nodes.length
    const places = new Map(job.tasks.map((t, i) => [t.id, first + i]))
    for (const [i, task] of job.tasks.entries()) {
      const before = task.after.map(({ from, min_min, max_min }) => {
        const at = places.get(from)
        if (at === undefined || at >= first + i)
          throw new RangeError(`${task.id} follows ${from}, which is not before it.`)
        return { at, min_min, max_min }
      })
      nodes.push({ task, job, before, group: -1, hands: handsFor(shop, task), rooms: roomsFor(shop, task) })
    }
    const mine = nodes.slice(first)
    const union = unite(mine, first)
    const numbers = new Map<number, number>()
    mine.forEach((node, i) => {
      const root = union.of(i)
      const group = numbers.get(root) ?? groups.length
      if (group === groups.length) {
        numbers.set(root, group)
        groups.push({ members: [], before: [], after: [], job, ifYes: false })
      }
      node.group = group
      groups[group]!.members.push(first + i)
      if (node.task.ifYes) groups[group]!.ifYes = true
    })
    for (const node of mine)
      for (const tie of node.before) {
        const from = nodes[tie.at]!.group
        if (from === node.group || groups[node.group]!.before.includes(from)) continue
        groups[node.group]!.before.push(from)
        groups[from]!.after.push(node.group)
      }
  }
  return { nodes, groups }
}

/** Steps that repeat until an inspection passes: how often they are planned, how often at worst, and what passes. */
import { actOf, does, type Fields, type Step } from '../acts'
import type { Context } from '../context'
import { taken } from '../materials'
import { speciesOf } from '../wood'

/** Bare soft wood may drink two coats more than planned (common practice). */
const SOFT_EXTRA = 2

export interface Loop {
  /** the last round's own step */
  step: string
  rounds: number
  worst: number
  passes: string
  /** steps of one more round, in order */
  again: string[]
}

/** Of the range of coats of its product, or by the act; soft wood under a film drinks more. */
function worstOf(step: Step, rounds: number, { facts, shelf }: Context): number {
  const m = taken(shelf, step)
  const film = does(step, 'finishes') && m?.role === 'film' && m.coats[1] > 1
  const soft = film && facts.faces.some(f => step.faces.includes(f.id) && speciesOf(f.species).softwood)
  return Math.max(rounds, actOf(step).rounds?.worst ?? m?.coats[1] ?? rounds) + (soft ? SOFT_EXTRA : 0)
}

/** Only the finish itself loops among the coats, and only a whole ladder's end among sanding. */
const mayLoop = (step: Step): boolean =>
  actOf(step).rounds !== null &&
  (!does(step, 'finishes') || !step.fields.as) &&
  (!does(step, 'abrades') || step.grits.length > 1)

/** The loops of a plan that may go further than planned, each with its planned and its worst count. */
export const loopsOf = (steps: readonly Step[], context: Context): Loop[] =>
  allLoops(steps, context).filter(l => l.worst > l.rounds)

function allLoops(steps: readonly Step[], context: Context): Loop[] {
  const groups = new Map<string, Step[]>()
  for (const step of steps) {
    const id = `${step.kind}|${step.product}|${step.faces.join()}`
    if (mayLoop(step)) groups.set(id, [...(groups.get(id) ?? []), step])
  }
  return [...groups.values()].flatMap((its): Loop[] => {
    const last = its.at(-1)!
    const own = actOf(last).rounds!
    const rounds = does(last, 'abrades') ? 1 : its.length
    const worst = worstOf(last, rounds, context)
    const shares = (s: Step) => s.faces.some(f => last.faces.includes(f))
    const at = steps.indexOf(last)
    const beside = (where: 'before' | 'after') =>
      own.with
        .filter(o => o.stands === where)
        .flatMap(({ kind }) => {
          const fits = (s: Step) => s.kind === kind && shares(s)
          const found = where === 'before' ? steps.slice(0, at).findLast(fits) : steps.slice(at).find(fits)
          return found ? [found] : []
        })
    const again = [...beside('before'), last, ...beside('after')]
    return [{ step: last.key, rounds, worst, passes: own.passes, again: again.map(s => s.key) }]
  })
}

/** The steps when these loops go their worst count. Coats are numbered on; keys of further rounds end in "+1", "+2". */
export function worstSteps(steps: readonly Step[], context: Context, loops = loopsOf(steps, context)): Step[] {
  const at = new Map<string, Step[]>()
  for (const loop of loops) {
    const round = loop.again.map(key => steps.find(s => s.key === key)!)
    const places = loop.again.map(key => steps.findIndex(s => s.key === key))
    const lastKey = steps[Math.max(...places)]!.key
    const extra = Array.from({ length: loop.worst - loop.rounds }, (_, n) =>
      round.map((s): Step => ({
        ...s,
        key: `${s.key}+${n + 1}`,
        grits: does(s, 'abrades') ? s.grits.slice(-1) : s.grits,
        coat: s.coat === null ? null : s.coat + n + 1,
        fields: s.fields.of ? { ...s.fields, of: loop.worst } : s.fields,
      })),
    ).flat()
    at.set(lastKey, [...(at.get(lastKey) ?? []), ...extra])
  }
  return steps.flatMap(s => [s, ...(at.get(s.key) ?? [])])
}

/** The loop whose round ends with this step, so that its pass test is judged at it; null: none does. */
export function roundEndingAt(steps: readonly Step[], key: string, context: Context): Loop | null {
  const places = new Map(steps.map((s, i) => [s.key, i]))
  const last = (l: Loop) => Math.max(...l.again.map(k => places.get(k) ?? -1))
  return allLoops(steps, context).find(l => steps[last(l)]?.key === key) ?? null
}

/** The key of the next round of a step: counted on, whatever rounds there are. */
function nextKey(key: string, taken: ReadonlySet<string>): string {
  const [, stem = `${key}.`, no = '1'] = /^(.*\.)(\d+)(?:@\d+)?$/.exec(key) ?? []
  let n = Number(no) + 1
  while (taken.has(`${stem}${n}`)) n++
  return `${stem}${n}`
}

/** Why a round stands there that was not planned. */
export const ONCE_MORE = 'it did not pass: once more'
/** One more round on these faces, right after the round that did not pass; thinner or stronger where that is said. */
export function withOneMore(
  steps: readonly Step[],
  loop: Loop,
  faces: readonly number[],
  strength?: Fields['strength'],
): Step[] {
  const taken = new Set(steps.map(s => s.key))
  const round = loop.again.map(key => steps.find(s => s.key === key)!)
  const last = Math.max(...round.map(s => steps.indexOf(s)))
  const fresh = round.map((s): Step => {
    const key = nextKey(s.key, taken)
    taken.add(key)
    return {
      ...s,
      key,
      faces: s.faces.filter(f => faces.includes(f)),
      coat: s.coat === null ? null : s.coat + 1,
      fields: {
        ...s.fields,
        ...(s.fields.of ? { of: s.fields.of + 1 } : {}),
        ...(strength && actOf(s).usesUp ? { strength } : {}),
      },
      why: ONCE_MORE,
      typed: [],
    }
  })
  return [...steps.slice(0, last + 1), ...fresh.filter(s => s.faces.length > 0), ...steps.slice(last + 1)]
}

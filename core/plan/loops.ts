/** Steps that repeat until an inspection passes: how often they are planned, how often at worst, and what passes. */
import type { StepKind, Step } from '../acts'
import type { Choice } from '../build'
import { materialOf } from '../materials'
import type { Facts } from '../piece'
import { speciesOf } from '../wood'

interface LoopKind {
  /** further kinds that belong to one round, after (or before) the step itself */
  round: readonly StepKind[]
  passes: string
  /** rounds at worst, where the product's own range of coats does not say */
  worst?: number
}
/** Worst counts: the range of coats of the product, else these (common practice). */
const LOOPS: Partial<Record<StepKind, LoopKind>> = {
  'strip': { round: ['scrape'], worst: 2, passes: 'A scraped corner shows clean wood.' },
  'bleach': { round: ['rinse'], worst: 2, passes: 'Dry, it is as pale inside the corners as on the flat.' },
  'fill': { round: ['fill-off', 'sand-back'], passes: 'Level pores in raking light.' },
  'sand': { round: [], worst: 2, passes: 'No scratch of the grit before in raking light.' },
  'dye': { round: [], passes: 'Even and dark enough, judged dry.' },
  'gel': { round: [], passes: 'Dark enough, judged dry.' },
  'toner': { round: [], passes: 'Dark enough under this light; each coat helps less.' },
  'coat': { round: ['sand-coat'], passes: 'Even sheen in raking light.' },
  'oil-on': { round: ['oil-off'], passes: 'Even sheen in raking light; the wood drinks no more.' },
}
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

const worstOf = (step: Step, kind: LoopKind, facts: Facts, rounds: number): number => {
  const m = step.product ? materialOf(step.product) : null
  const soft = step.kind === 'coat' && facts.faces.some(f => step.faces.includes(f.id) && speciesOf(f.species).softwood)
  return (
    Math.max(rounds, kind.worst ?? (m ? m.coats[1] : rounds)) +
    (soft && m?.role === 'film' && m.coats[1] > 1 ? SOFT_EXTRA : 0)
  )
}

/**
 * The loops of a plan, each with its planned and its worst count. Only the finish itself loops among the coats, and
 * only a whole ladder's end among sanding.
 */
export function loopsOf(steps: readonly Step[], facts: Facts, choice: Pick<Choice, 'finish'>): Loop[] {
  const groups = new Map<string, Step[]>()
  for (const step of steps) {
    const looping =
      LOOPS[step.kind] &&
      (!['coat', 'oil-on'].includes(step.kind) || step.product === choice.finish) &&
      (step.kind !== 'sand' || step.grits.length > 1) &&
      step.gate === null
    const id = `${step.kind}|${step.product}|${step.faces.join()}`
    if (looping) groups.set(id, [...(groups.get(id) ?? []), step])
  }
  return [...groups.values()].flatMap(its => {
    const last = its.at(-1)!
    const kind = LOOPS[last.kind]!
    const rounds = last.kind === 'sand' ? 1 : its.length
    const worst = worstOf(last, kind, facts, rounds)
    const shares = (s: Step) => s.faces.some(f => last.faces.includes(f))
    const at = steps.indexOf(last)
    const after = kind.round.flatMap(k => {
      const found =
        k === 'sand-coat'
          ? steps.slice(0, at).findLast(s => s.kind === k && shares(s))
          : steps.slice(at).find(s => s.kind === k && shares(s))
      return found ? [found] : []
    })
    const again = last.kind === 'coat' ? [...after, last] : [last, ...after]
    return worst > rounds ? [{ step: last.key, rounds, worst, passes: kind.passes, again: again.map(s => s.key) }] : []
  })
}

/**
 * The steps when every loop goes its worst count. Coats may be numbered on; keys of further rounds end in "+1", "+2".
 */
export function worstSteps(steps: readonly Step[], facts: Facts, choice: Pick<Choice, 'finish'>): Step[] {
  const at = new Map<string, Step[]>()
  for (const loop of loopsOf(steps, facts, choice)) {
    const round = loop.again.map(key => steps.find(s => s.key === key)!)
    const lastKey = loop.again.reduce((last, key) =>
      steps.findIndex(s => s.key === key) > steps.findIndex(s => s.key === last) ? key : last,
    )
    const extra = Array.from({ length: loop.worst - loop.rounds }, (_, n) =>
      round.map((s): Step => ({
        ...s,
        key: `${s.key}+${n + 1}`,
        grits: s.kind === 'sand' ? s.grits.slice(-1) : s.grits,
        coat: s.coat === null ? null : s.coat + n + 1,
      })),
    ).flat()
    at.set(lastKey, [...(at.get(lastKey) ?? []), ...extra])
  }
  return steps.flatMap(s => [s, ...(at.get(s.key) ?? [])])
}

/**
 * Replanning and all rules, against serialising the plan. Beside an older core in the same run, so that one noise is on
 * both: this very file is then built over that core too, and may use of it only what both have.
 */
import { usualContext } from '#core/context'
import { workOutPlan } from '#core/plan'
import { judgePlan } from '#core/rules'
import * as made from './facts'

const WOODS = ['oak', 'pine', 'walnut', 'beech'] as const
const thickness = (i: number) => (i % 5 ? 0.4 + (i % 40) / 20 : null)
const pieceOf = (n: number, apart: boolean) =>
  made.facts({
    faces: Array.from({ length: n }, (_, i) => {
      const where = { id: i + 1, part: `part ${i % 8}`, species: WOODS[i % 4]! }
      if (!apart) return made.face({ ...where, shape: i % 3 ? 'flat' : 'turned' })
      const substrate = thickness(i) === null ? 'solid' : 'veneer'
      return made.face({ ...where, substrate, veneer_mm: thickness(i), finishGroup: 'ABCDEF'[i % 6]! })
    }),
  })
const pick = {
  ...({ route: 'strip-chemical', finish: 'varnish-oil' } as const),
  ...({ colour: 'pigment-stain', conditioner: 'auto' } as const),
}

/** Planning and judging a piece of so many faces, in four groups or each a group of its own; and its plan as text. */
export function replanOf(n: number, apart: boolean): { replan: () => void; serialise: () => void } {
  const context = usualContext(pieceOf(n, apart))
  // a core from before surfaces were composed plans from the picks themselves
  const chosen = 'built' in made ? made.built : (_context: typeof context, picks: typeof pick) => picks as never
  const plan = workOutPlan(context, chosen(context, pick))
  return {
    replan: () => {
      const choice = chosen(context, pick)
      judgePlan({ context, choice, ...workOutPlan(context, choice) })
    },
    serialise: () => JSON.stringify(plan),
  }
}

export interface Core {
  name: string
  replanOf: typeof replanOf
}
const SIZES = [5, 10, 20, 40, 80]
const ROUNDS = 15
const SERIALISED = 100
function time_ms(work: () => void): number {
  const begun = performance.now()
  work()
  return performance.now() - begun
}
const middle = (all: readonly number[]) => [...all].sort((a, b) => a - b)[Math.floor(all.length / 2)]!

/** Medians over rounds that the cores take in turn, ms. */
function inTurn(cores: readonly Core[], n: number, apart: boolean) {
  const works = cores.map(c => c.replanOf(n, apart))
  const taken = cores.map(() => ({ replan: [] as number[], serialise: [] as number[] }))
  for (let round = 0; round < ROUNDS; round++)
    for (const [i, { replan, serialise }] of works.entries()) {
      taken[i]!.replan.push(time_ms(replan))
      const all = () => {
        for (let k = 0; k < SERIALISED; k++) serialise()
      }
      taken[i]!.serialise.push(time_ms(all) / SERIALISED)
    }
  return taken.map(t => ({ replan: middle(t.replan), serialise: middle(t.serialise) }))
}

/** Says how the cores do, and each against the first. */
export function planBench(cores: readonly Core[], say: (what: string, figure: string) => void) {
  const alike = SIZES.map(n => inTurn(cores, n, false))
  const apart = SIZES.map(n => inTurn(cores, n, true))
  const last = SIZES.length - 1
  for (const [i, { name }] of cores.entries()) {
    const at40 = alike[SIZES.indexOf(40)]![i]!
    const growth = (all: typeof alike) => all.map(a => `${(a[i]!.replan / all[0]![i]!.replan).toFixed(1)} ×`).join('  ')
    say(
      `${name}: replanning and all rules, 40 faces in 4 groups, to text`,
      `${(at40.replan / at40.serialise).toFixed(0)} ×   (${at40.replan.toFixed(1)} / ${at40.serialise.toFixed(3)} ms)`,
    )
    say(`${name}: its growth over ${SIZES.join(', ')} faces`, growth(alike))
    say(
      `${name}: the same, every face a group of its own`,
      `${growth(apart)}   (${apart[last]![i]!.replan.toFixed(1)} ms at 80)`,
    )
    if (i > 0)
      say(
        `${name} against ${cores[0]!.name}: 40 faces in 4 groups; 80 apart`,
        [alike[SIZES.indexOf(40)]!, apart[last]!].map(a => `${(a[i]!.replan / a[0]!.replan).toFixed(2)} ×`).join('  '),
      )
  }
}

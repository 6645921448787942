/**
 * Made-up faults, to see how well the questions are put. Faults and answers come from a jittered table, so that it is
 * not the one that asks. It measures the questioning, not whether the table is true.
 */
import { sumOf } from '../units'
import { beliefOf, causesOf, nextAsks, priorOf, type Said } from './infer'
import { GRADE_P, type Sign } from './sign'

/** 0 to 1, even. */
export type Random = () => number
const JITTER = 0.6
const gauss = (random: Random) => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random())
const shaken = (p: number, random: Random) => {
  const odds = Math.log(p / (1 - p)) + JITTER * gauss(random)
  return 1 / (1 + Math.exp(-odds))
}
function drawn(weights: readonly number[], random: Random): number {
  const total = sumOf(weights, w => w)
  let left = random() * total
  const at = weights.findIndex(w => (left -= w) <= 0)
  return at < 0 ? weights.length - 1 : at
}

export interface Told {
  /** was the first suspect right, after so many questions: 0, 1, 2, 3 */
  right: boolean[]
  /** how sure it was in the end, and whether that was right */
  certainty: number
}
const ASKED = 3
/** One fault, asked about by telling questions or in the order of the table. */
export function fault(sign: Sign, order: 'telling' | 'fixed', random: Random): Told {
  const truth = drawn(
    priorOf(sign).map(p => p * Math.exp(JITTER * gauss(random))),
    random,
  )
  const cause = causesOf(sign)[truth]!
  const said: Said[] = []
  const first = () => {
    const belief = beliefOf(sign, { facts: [], said })
    return { right: belief.indexOf(Math.max(...belief)) === truth, certainty: Math.max(...belief) }
  }
  const right = [first().right]
  for (let i = 0; i < ASKED; i++) {
    const ask = order === 'telling' ? nextAsks(sign, { facts: [], said })[0] : Object.keys(sign.asks)[i]
    if (ask) {
      const p = GRADE_P[sign.asks[ask]!.yes[cause] ?? 'half']
      said.push({ ask, yes: random() < shaken(p, random) })
    }
    right.push(first().right)
  }
  return { right, certainty: first().certainty }
}

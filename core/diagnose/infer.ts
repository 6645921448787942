/** What caused it: naive Bayes over yes-or-no questions, with what is known before, and what this shop found before. */
import { sumOf } from '../units'
import { FACT_FACTOR, type Fact } from './facts'
import { type Grade, GRADE_P, type Sign } from './sign'

export interface Said {
  ask: string
  yes: boolean
}
/** How often each cause was found in the end, in this shop. */
export type Found = Readonly<Record<string, number>>
/** Grades that a shop set for itself, by question and cause. */
export type OwnGrades = Readonly<Record<string, Readonly<Record<string, Grade>>>>
export interface Evidence {
  facts: readonly Fact[]
  said: readonly Said[]
  found?: Found
  grades?: OwnGrades
}
export interface Suspect {
  cause: string
  /** at most 0.95 */
  certainty: number
  /** facts and answers that speak for it, and against it, the strongest first */
  pro: readonly Reason[]
  contra: readonly Reason[]
}
export interface Reason {
  fact: Fact | null
  ask: string | null
  yes: boolean
  ratio: number
}
/** What the table says counts like so many cases. */
export const PSEUDO_CASES = 10
/** Each cause is so much less usual than the one before it. Shop default, unsourced. */
const FALLS = 0.6
const MOST = 0.95
/** From so much on nothing more is asked. */
export const SURE = 0.8
const LEAST_GAIN_BITS = 0.02

const normalise = (row: readonly number[]) => {
  const total = sumOf(row, x => x)
  return row.map(x => x / total)
}
const dot = (a: readonly number[], b: readonly number[]) => sumOf([...a.keys()], i => a[i]! * b[i]!)
const entropy = (p: readonly number[]) => -sumOf(p, x => (x > 0 ? x * Math.log2(x) : 0))
export const causesOf = (sign: Sign): string[] => Object.keys(sign.causes)

/** Most usual first, then pulled toward what this shop found. */
export function priorOf(sign: Sign, found: Found = {}): number[] {
  const table = normalise(causesOf(sign).map((_, i) => FALLS ** i))
  const cases = causesOf(sign).map(c => found[c] ?? 0)
  const all = sumOf(cases, n => n)
  return table.map((p, i) => (PSEUDO_CASES * p + cases[i]!) / (PSEUDO_CASES + all))
}
const gradeOf = (sign: Sign, ask: string, cause: string, own: OwnGrades = {}): Grade =>
  own[ask]?.[cause] ?? sign.asks[ask]?.yes[cause] ?? 'half'
/** P(yes | cause) for every cause of the sign. */
const yesOf = (sign: Sign, ask: string, own?: OwnGrades) => causesOf(sign).map(c => GRADE_P[gradeOf(sign, ask, c, own)])
const factorOf = (sign: Sign, cause: string, fact: Fact): number => {
  const { more, less } = sign.causes[cause]!
  if (more.includes(fact)) return FACT_FACTOR
  return less.includes(fact) ? 1 / FACT_FACTOR : 1
}

/** Evidence with what the facts answer by themselves among the answers; whoever answered otherwise is believed. */
function heard(sign: Sign, evidence: Evidence): Evidence {
  const { facts, said } = evidence
  const asked = new Set(said.map(s => s.ask))
  const told = Object.entries(sign.asks).flatMap(([ask, { told }]) =>
    ([true, false] as const).flatMap(yes =>
      (told[yes ? 'yes' : 'no'] ?? []).filter(f => facts.includes(f)).map(fact => ({ ask, yes, fact })),
    ),
  )
  const spoken = new Set(told.map(t => t.fact))
  const own = [...new Map(told.filter(t => !asked.has(t.ask)).map(t => [t.ask, { ask: t.ask, yes: t.yes }])).values()]
  return { ...evidence, facts: facts.filter(f => !spoken.has(f)), said: [...own, ...said] }
}
/** P(cause) after all that is known and said, in the order of the sign's causes. */
export function beliefOf(sign: Sign, evidence: Evidence): number[] {
  const { facts, said, found, grades } = heard(sign, evidence)
  const start = priorOf(sign, found).map((p, i) =>
    facts.reduce((odds, f) => odds * factorOf(sign, causesOf(sign)[i]!, f), p),
  )
  return said.reduce((belief, { ask, yes }) => {
    if (!Object.hasOwn(sign.asks, ask)) return belief
    const p = yesOf(sign, ask, grades)
    return normalise(belief.map((b, i) => b * (yes ? p[i]! : 1 - p[i]!)))
  }, normalise(start))
}

/** What an answer would tell, bits, on average. */
function gainOf(belief: readonly number[], p: readonly number[]): number {
  const yes = dot(belief, p)
  const after = (weights: readonly number[]) => entropy(normalise(weights))
  return (
    entropy(belief) -
    yes * after(belief.map((b, i) => b * p[i]!)) -
    (1 - yes) * after(belief.map((b, i) => b * (1 - p[i]!)))
  )
}
/**
 * Questions that were not asked yet, the most telling first; none once it is sure enough. `passed`: those that nobody
 * could answer.
 */
export function nextAsks(sign: Sign, evidence: Evidence, passed: readonly string[] = []): string[] {
  const belief = beliefOf(sign, evidence)
  if (Math.max(...belief) >= SURE) return []
  const done = new Set([...heard(sign, evidence).said.map(s => s.ask), ...passed])
  return Object.keys(sign.asks)
    .filter(a => !done.has(a))
    .map(a => ({ a, gain: gainOf(belief, yesOf(sign, a, evidence.grades)) }))
    .filter(x => x.gain > LEAST_GAIN_BITS)
    .sort((x, y) => y.gain - x.gain)
    .map(x => x.a)
}

/** How much one fact or answer speaks for a cause against all the others together. */
function reasonsFor(sign: Sign, at: number, evidence: Evidence): Reason[] {
  const { facts, said, found, grades } = heard(sign, evidence)
  const prior = priorOf(sign, found)
  const others = prior.map((w, i) => (i === at ? 0 : w))
  const against = (p: readonly number[]) => (p[at]! * sumOf(others, w => w)) / dot(others, p)
  return [
    ...facts.map((fact): Reason => ({
      ...{ fact, ask: null, yes: true },
      ratio: against(causesOf(sign).map(c => factorOf(sign, c, fact))),
    })),
    ...said
      .filter(s => Object.hasOwn(sign.asks, s.ask))
      .map(({ ask, yes }): Reason => ({
        ...{ fact: null, ask, yes },
        ratio: against(yesOf(sign, ask, grades).map(p => (yes ? p : 1 - p))),
      })),
  ]
}
const TELLS = 1.3
/** Causes, the likeliest first, with what speaks for and against each. */
export function suspects(sign: Sign, evidence: Evidence): Suspect[] {
  const belief = beliefOf(sign, evidence)
  return causesOf(sign)
    .map((cause, i): Suspect => {
      const reasons = reasonsFor(sign, i, evidence)
      return {
        ...{ cause, certainty: Math.min(MOST, belief[i]!) },
        pro: reasons.filter(r => r.ratio > TELLS).sort((a, b) => b.ratio - a.ratio),
        contra: reasons.filter(r => r.ratio < 1 / TELLS).sort((a, b) => a.ratio - b.ratio),
      }
    })
    .sort((a, b) => b.certainty - a.certainty)
}

/** Colour measured against other ways of doing the same, in one process; ratios only. */
import { diff } from 'color-diff'
import Color from 'colorjs.io'
import { differenceCiede2000 } from 'culori'
import direct from 'ml-direct'
import {
  bandError,
  type Band,
  bestRecipes,
  clearCoat,
  type Colourant,
  colouredInner,
  deltaE00Pairs,
  learn,
  mixProblem,
  readOf,
  type SearchQuestion,
  searchRecipes,
  type Share,
  strengthOf,
} from '../core/colour'
import { aged, numbered, OLD_STAINS, WOODS } from '../demo/colours'

/** A repeatable chance from 0 to 1. */
function chance(seed: number) {
  let s = seed
  return () => (s = (s * 16807) % 2147483647) / 2147483647
}
const gauss = (next: () => number) => Math.sqrt(-2 * Math.log(next() + 1e-12)) * Math.cos(2 * Math.PI * next())
const say = (what: string, figure: string) => console.log(`${what.padEnd(64)} ${figure}`)
const middle = (v: readonly number[]) => [...v].sort((a, b) => a - b)[Math.floor(v.length / 2)]!
const timed = <T>(work: () => T): [T, number] => {
  const at = performance.now()
  const result = work()
  return [result, performance.now() - at]
}
/** The middle of seven runs after one to warm up, ms. */
const often = (work: () => unknown) => {
  work()
  return middle(Array.from({ length: 7 }, () => timed(work)[1]))
}

function differences() {
  const N = 100_000
  const next = chance(11)
  const [a, b, out] = [new Float64Array(3 * N), new Float64Array(3 * N), new Float64Array(N)]
  for (let i = 0; i < 3 * N; i++) {
    a[i] = i % 3 ? 60 * next() - 20 : 5 + 90 * next()
    b[i] = i % 3 ? 60 * next() - 20 : 5 + 90 * next()
  }
  const own = often(() => deltaE00Pairs(a, b, out))
  const culori = differenceCiede2000()
  const lab65 = (v: Float64Array, i: number) => ({
    mode: 'lab65' as const,
    l: v[3 * i]!,
    a: v[3 * i + 1]!,
    b: v[3 * i + 2]!,
  })
  const [ca, cb] = [a, b].map(v => Array.from({ length: N }, (_, i) => lab65(v, i)))
  const [ja, jb] = [a, b].map(v =>
    Array.from({ length: N }, (_, i) => new Color('lab', [v[3 * i]!, v[3 * i + 1]!, v[3 * i + 2]!])),
  )
  const [da, db] = [a, b].map(v =>
    Array.from({ length: N }, (_, i) => ({ L: v[3 * i]!, a: v[3 * i + 1]!, b: v[3 * i + 2]! })),
  )
  say(
    `CIEDE2000, ${N} pairs: time against culori`,
    `${(own / often(() => ca!.forEach((c, i) => culori(c, cb![i]!)))).toFixed(3)} ×   (${own.toFixed(1)} ms)`,
  )
  say('  against colorjs.io', `${(own / often(() => ja!.forEach((c, i) => c.deltaE(jb![i]!, '2000')))).toFixed(3)} ×`)
  say('  against color-diff', `${(own / often(() => da!.forEach((c, i) => diff(c, db![i]!)))).toFixed(3)} ×`)
}

/** Sixteen dyes: the demo's eight, and eight more between them. */
const eight = numbered.filter(c => c.group === 'water-dye')
const sixteen: Colourant[] = [
  ...eight,
  ...eight.map((c, i) => ({
    ...c,
    id: 100 + i,
    k: c.k.map((k, w) => 0.6 * k + 0.4 * eight[(i + 3) % 8]!.k[(w + 2) % 31]!),
  })),
]
const surface = { clear: clearCoat('waterborne-polyurethane'), gloss: 'excluded' as const }
const targets = [
  [WOODS.oak, OLD_STAINS.seat, 1],
  [WOODS.beech, OLD_STAINS.seat, 0.6],
  [WOODS.birch, OLD_STAINS.trap, 0.8],
  [WOODS.cherry, OLD_STAINS.seat, 1.4],
] as const
const questions = (colourants: readonly Colourant[]): SearchQuestion[] =>
  targets.map(([wood, stain, strength]) => ({
    substrates: [wood],
    target: aged(
      wood,
      stain.map(k => k * strength),
      'shellac-blond',
      20,
    ),
    colourants,
    atMost: 3,
    lights: ['d65', 'a', 'led'],
    observer: '10',
    coats: 1,
    wipe: 'none',
    surface,
  }))

function* subsets(n: number, size: number, from = 0): Generator<number[]> {
  if (size === 0) {
    yield []
    return
  }
  for (let i = from; i <= n - size; i++) for (const rest of subsets(n, size - 1, i + 1)) yield [i, ...rest]
}
/** Steps of the exhaustive grid, % of the mix. */
const GRID = [0, 2, 5, 10, 20, 35, 50, 70, 100]

type Score = (at: readonly number[]) => number

/** Steps along each colourant, halved until they are 0.01 % or gain nothing. */
function compass(score: Score, start: readonly number[]): number {
  let best = score(start)
  const x = [...start]
  for (let step = 8; step > 0.01;) {
    let moved = false
    for (const j of x.keys()) {
      for (const way of [step, -step]) {
        const there = x.map((v, k) => (k === j ? Math.min(100, Math.max(0, v + way)) : v))
        const s = score(there)
        if (s < best - 1e-5) {
          best = s
          x[j] = there[j]!
          moved = true
          break
        }
      }
    }
    if (!moved) step /= 2
  }
  return best
}

/** All points of the grid, then the best one refined. */
function exhaustive(score: Score, size: number): number {
  let least = Infinity
  let start: number[] = []
  const walk = (at: number[]) => {
    if (at.length === size) {
      const s = score(at)
      if (s < least) {
        least = s
        start = at
      }
      return
    }
    for (const g of GRID) walk([...at, g])
  }
  walk([])
  return compass(score, start)
}
/** It does not come back for one unknown; there the compass stands in. */
const byDirect = (score: Score, size: number) =>
  size === 1
    ? compass(score, [20])
    : direct(
        score as never,
        Array.from({ length: size }, () => 0),
        Array.from({ length: size }, () => 100),
        { iterations: 20 },
      ).minFunctionValue

/** The least score over every mix of up to three, each mix solved by `solve`. */
function overAll(q: SearchQuestion, solve: (score: Score, size: number) => number): number {
  let best = Infinity
  for (let size = 1; size <= 3; size++) {
    for (const set of subsets(q.colourants.length, size)) {
      const problem = mixProblem(
        q,
        set.map(i => q.colourants[i]!),
      )
      const out = new Float64Array(problem.size)
      const x = new Float64Array(size)
      best = Math.min(
        best,
        solve(at => {
          for (let j = 0; j < size; j++) x[j] = Math.min(problem.most[j]!, Math.max(0, at[j]!))
          problem.hold?.(x)
          problem.residuals(x, out)
          return Math.sqrt(out.reduce((s, r) => s + r * r, 0))
        }, size),
      )
    }
  }
  return best
}

function search() {
  console.log(
    `\nRecipe search against an exhaustive one: every mix of up to 3, grid ${GRID.join(', ')} % and the best ` +
      `point of each refined by compass search; ${targets.length} targets`,
  )
  for (const set of [eight, sixteen]) {
    const [gaps, times, optimiserGaps, optimiserTimes, firsts]: number[][] = [[], [], [], [], []]
    for (const q of questions(set)) {
      bestRecipes({ ...q, atMost: 1 })
      const [own, own_ms] = timed(() => bestRecipes(q)[0]!.score)
      const [first, first_ms] = timed(() => {
        for (const s of searchRecipes(q)) if (s.best[0]) return s.best[0].score
        return Infinity
      })
      const [all, all_ms] = timed(() => overAll(q, exhaustive))
      const [other, other_ms] = timed(() => overAll(q, byDirect))
      gaps!.push(own - all)
      times!.push(own_ms / all_ms)
      optimiserGaps!.push(other - all)
      optimiserTimes!.push(own_ms / other_ms)
      firsts!.push(first_ms)
      say(
        `  ${set.length} colourants: first answer, search, exhaustive (ΔE00)`,
        `${first.toFixed(2)}  ${own.toFixed(3)}  ${all.toFixed(3)}   (${own_ms.toFixed(0)} ms, ` +
          `${all_ms.toFixed(0)} ms)`,
      )
    }
    say(`${set.length} colourants: worst gap to exhaustive (aim 0.1 ΔE00)`, `${Math.max(...gaps!).toFixed(3)}`)
    say('  time against exhaustive', `${middle(times!).toFixed(3)} ×`)
    say(
      '  DIRECT (npm ml-direct, 20 rounds a mix): worst gap; time of the search against it',
      `${Math.max(...optimiserGaps!).toFixed(3)}; ${middle(optimiserTimes!).toFixed(2)} ×`,
    )
  }
}

function learning() {
  const NOISE = 0.006
  const TRIALS = 20
  console.log(
    `\nLearning: ${TRIALS} made-up shops of 4 colourants, spectra on record 15 % off (σ), readings with ` +
      `${100 * NOISE} % noise, judged on 30 fresh mixes (ΔE00, mean of root mean squares)`,
  )
  const sums = new Map<number, number>()
  for (let trial = 0; trial < TRIALS; trial++) {
    const next = chance(100 + trial)
    const truth = eight.slice(0, 4).map(c => ({ ...c, k: c.k.map(k => k * (1 + 0.1 * gauss(next))) }))
    const record = truth.map(c => {
      const scale = Math.exp(0.15 * gauss(next))
      const tilt = 0.15 * gauss(next)
      return { ...c, k: c.k.map((k, i) => k * scale * (1 + tilt * (i / 15 - 1))) }
    })
    const band = (id: number, noise: number): Band => {
      const shares: Share[] = truth.filter(() => next() < 0.6).map(c => ({ id: c.id, pct: 5 + 40 * next() }))
      if (shares.length === 0) shares.push({ id: truth[id % 4]!.id, pct: 20 })
      const inner = [WOODS.oak, WOODS.beech][id % 2]!
      const read = readOf(
        colouredInner(
          inner,
          truth,
          truth.map(c => strengthOf(shares.find(s => s.id === c.id)?.pct ?? 0, 1, 'none')),
        ),
        surface,
      )
      return { id, inner, shares, coats: 1, wipe: 'none', surface, read: read.map(r => r * (1 + noise * gauss(next))) }
    }
    const fresh = Array.from({ length: 30 }, (_, i) => band(1000 + i, 0))
    const error = (set: readonly Colourant[]) =>
      Math.sqrt(fresh.reduce((s, b) => s + bandError(set, b) ** 2, 0) / fresh.length)
    const bands = Array.from({ length: 12 }, (_, i) => band(i, NOISE))
    for (const n of [0, 3, 6, 12])
      sums.set(n, (sums.get(n) ?? 0) + error(n === 0 ? record : learn(record, bands.slice(0, n)).colourants) / TRIALS)
  }
  for (const [n, error] of sums) say(`  after ${n} bands`, error.toFixed(2))
}

/** All of it; also runs alone. */
export function colourBench() {
  differences()
  search()
  learning()
  console.log('')
}

/** The schedule's solver measured: against proved optima, against itself given longer, and by its inspector. */
import { begunFrom, check, type Schedule, type Shop, solve } from '#core/schedule'
import { randomShop } from './core/randomShop'
import { optimumOf } from './published/optimum'
import { smallShop } from './published/smallShop'

const say = (what: string, figure: string) => console.log(`${what.padEnd(72)} ${figure}`)
const percent = (x: number) => `${(100 * x).toFixed(1)} %`
const mean = (all: readonly number[]) => all.reduce((sum, x) => sum + x, 0) / all.length

function best(shop: Shop, seed: number, stops: { orders?: number; ms?: number }): Schedule {
  const until = performance.now() + (stops.ms ?? Infinity)
  for (const progress of solve(shop, seed))
    if (progress.tried >= (stops.orders ?? Infinity) || performance.now() >= until) return progress.best
  throw new Error('solve never ends by itself')
}

async function small(count: number) {
  const gaps: number[] = []
  let proved = 0
  for (let seed = 1; seed <= count; seed++) {
    const shop = smallShop(seed)
    const optimum = await optimumOf(shop, 60)
    if (optimum.status !== 'Optimal') continue
    const gap = best(shop, 1, { orders: 5000 }).cost.hours / optimum.hours - 1
    gaps.push(gap)
    if (gap < 1e-4) proved++
  }
  say(`${count} small shops against HiGHS (60 s each; ${gaps.length} proved there)`, `${proved} reach the optimum`)
  say('  gap, mean and worst', `${percent(mean(gaps))}, ${percent(Math.max(...gaps))}`)
}

/** So often more a schedule of three seconds is worked out again, each from the one before. */
const AGAIN = 6

function large(count: number, seconds: number) {
  const gaps: number[] = []
  const settled: number[] = []
  const first: number[] = []
  for (let n = 1; n <= count; n++) {
    const shop = randomShop(n, { jobs: 40, tasks: 25, hands: 4 })
    const from = performance.now()
    best(shop, 1, { orders: 1 })
    first.push(performance.now() - from)
    const ours = best(shop, 1, { ms: 3000 })
    const long = Math.min(...Array.from({ length: 10 }, (_, i) => best(shop, i + 2, { ms: seconds * 1000 }).cost.hours))
    let later = ours
    for (let n = 0; n < AGAIN; n++) later = best(begunFrom(shop, later), 1, { ms: 3000 })
    gaps.push(ours.cost.hours / long - 1)
    settled.push(later.cost.hours / long - 1)
  }
  say(
    `${count} large shops, up to 40 pieces × 25 steps: first schedule`,
    `${Math.round(Math.max(...first))} ms at most`,
  )
  say(
    `  three seconds against the best of ten runs of ${seconds} s: mean and worst`,
    `${percent(mean(gaps))}, ${percent(Math.max(...gaps))}`,
  )
  say(
    `  after ${AGAIN} changes, three seconds each from the schedule before: mean and worst`,
    `${percent(mean(settled))}, ${percent(Math.max(...settled))}`,
  )
}

function sound(count: number) {
  let broken = 0
  for (let seed = 1; seed <= count; seed++) {
    const shop = randomShop(seed, { jobs: 1 + (seed % 9), tasks: 3 + (seed % 10), hands: 1 + (seed % 4) })
    if (check(shop, best(shop, seed, { orders: 8 })).length > 0) broken++
  }
  say(`${count} random shops, looked over`, `${broken} with a broken rule`)
}

const quick = process.argv.includes('--quick')
await small(quick ? 6 : 30)
sound(quick ? 300 : 10_000)
large(quick ? 1 : 4, quick ? 5 : 20)

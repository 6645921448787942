/**
 * A shop's year lived by three ways of running it. All of the world is made up, and lives by the same spreads by which
 * the shop judges: it measures what planning and waiting do, not whether a real shop's films, clients and hands are so.
 */
import { byLabel, bySafeWaits, bySchedule, liveThrough, type Policy, type Tally, World } from '#core/simulate'

const YEAR = 364
const long = process.argv.includes('--long')
const days = process.argv.includes('--quick') ? 60 : YEAR
const seeds = Array.from({ length: long ? 20 : 3 }, (_, i) => i + 1)
const POLICIES: readonly ((seed: number) => Policy)[] = [byLabel, bySafeWaits, bySchedule]

const ROWS: readonly [keyof Tally, string, (x: number) => string][] = [
  ['jobs', 'pieces ready', x => x.toFixed(0)],
  ['missedWindows', 'windows missed', x => x.toFixed(0)],
  ['redone', 'operations redone', x => x.toFixed(0)],
  ['lateDays', 'days late, all pieces', x => x.toFixed(0)],
  ['kept', 'promises kept', x => `${(100 * x).toFixed(1)} %`],
  ['flowDays', 'days from in to ready', x => x.toFixed(1)],
  ['idleHours', 'idle hours', x => x.toFixed(0)],
]
const mean = (all: readonly number[]) => all.reduce((sum, x) => sum + x, 0) / all.length
const range = (all: readonly number[], say: (x: number) => string) =>
  `${say(mean(all))} (${say(Math.min(...all))}–${say(Math.max(...all))})`

console.log(`${seeds.length} years of ${days} days, seeds ${seeds.join(', ')}; mean, least and most`)
const lived = POLICIES.map(make => {
  const from = performance.now()
  const tallies = seeds.map(seed => liveThrough(new World(seed, days), make(seed)))
  return { name: make(0).name, tallies, s: (performance.now() - from) / 1000 }
})
for (const { name, tallies, s } of lived) {
  console.log(`\n${name} (${s.toFixed(0)} s)`)
  for (const [key, says, say] of ROWS)
    console.log(
      `  ${says.padEnd(28)} ${range(
        tallies.map(t => t[key]),
        say,
      )}`,
    )
}
const [a, , c] = lived
const less = (key: keyof Tally) => 1 - mean(c!.tallies.map(t => t[key])) / mean(a!.tallies.map(t => t[key]))
console.log('\none schedule against label times:')
for (const [key, says, aim] of [
  ['missedWindows', 'windows missed', 0.9],
  ['lateDays', 'days late', 0.5],
  ['redone', 'operations redone', 0.75],
] as const)
  console.log(`  ${says.padEnd(28)} −${(100 * less(key)).toFixed(0)} % (aim −${100 * aim} %)`)
console.log(
  '\nIt cannot show how real films, clients and hands spread, nor what no rule here does: swap pieces,' +
    '\nwork longer, sand instead of waiting. Where a hidden film dries slower than its window allows, no way keeps it.',
)

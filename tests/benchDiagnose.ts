/**
 * How well the questions about a fault are put: 3,000 made-up faults, from a jittered table, asked about by the most
 * telling questions and in the order of the table. It measures the questioning, not whether the table is true.
 */
import { fault, SIGNS } from '#core/diagnose'
import { chance } from '#core/schedule'

const N = 3000
const percent = (n: number, of: number) => `${((100 * n) / of).toFixed(1)} %`
const live = (order: 'telling' | 'fixed') => {
  const random = chance(19)
  return Array.from({ length: N }, (_, i) => fault(SIGNS[i % SIGNS.length]!, order, random))
}
console.log(`First suspect right, ${N} made-up faults`)
for (const order of ['telling', 'fixed'] as const) {
  const told = live(order)
  const after = [0, 1, 2, 3].map(n => percent(told.filter(t => t.right[n]).length, N))
  console.log(`${order === 'telling' ? 'most telling first' : 'order of the table'}: ${after.join(' → ')}`)
}
console.log('Calibration after three questions: said sure, was right')
const told = live('telling')
for (let from = 0.3; from < 1; from += 0.1) {
  const its = told.filter(t => t.certainty >= from && t.certainty < from + 0.1)
  if (its.length) {
    const mean = its.reduce((sum, t) => sum + t.certainty, 0) / its.length
    console.log(
      `${percent(mean, 1)} said, ${percent(its.filter(t => t.right.at(-1)).length, its.length)} right, N ${its.length}`,
    )
  }
}

/**
 * How well dry times are learnt: true multipliers drawn from the priors, or from wider ones, looks each morning; how
 * often the next drying lies between P10 and P90. It measures the learning, not whether real products dry so.
 */
import { type DryLooks, learnDrying, PRIORS } from '#core/drying'
import { chance } from '#core/schedule'

const DAY_MIN = 1440
const LEARNT_AFTER = [0, 4, 16, 64] as const
const [N, QUICK] = [4000, 400] as const
const random = chance(7)
const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random())
const CLASSES = ['varnish-oil', 'danish-oil'] as const
const PRODUCTS = ['a', 'b'] as const
type Asked = Pick<DryLooks, 'base' | 'of' | 'product'>

/** A made-up truth: the logarithm of each multiplier; `wider`: by how much more than the priors say. */
function truth(wider: number) {
  const { base, class: own, product, look } = PRIORS.oil
  const shared = wider * base * normal()
  const classes = new Map(CLASSES.map(c => [c as string, wider * own * normal()]))
  const products = new Map<string, number>(
    CLASSES.flatMap(c => PRODUCTS.map(p => [`${c} ${p}`, wider * product * normal()] as const)),
  )
  return (a: Asked) => Math.exp(shared + classes.get(a.of)! + products.get(`${a.of} ${a.product}`)! + look * normal())
}
const any = (): Asked => ({
  base: 'oil',
  of: CLASSES[Math.floor(random() * CLASSES.length)]!,
  product: PRODUCTS[Math.floor(random() * PRODUCTS.length)]!,
})
/** Looked at each morning: not dry at the last before, dry at the first after; some were begun late, unseen. */
function look(asked: Asked, factor: number): DryLooks {
  const expected_min = DAY_MIN * (0.5 + 2 * random())
  const real = expected_min * factor
  const first = DAY_MIN * random()
  const mornings = Math.max(0, Math.ceil((real - first) / DAY_MIN))
  const dry_min = first + mornings * DAY_MIN
  const seen = random() < 0.8
  return {
    ...{ ...asked, expected_min },
    notDry_min: seen && mornings > 0 ? dry_min - DAY_MIN : null,
    dry_min: seen ? dry_min : dry_min + DAY_MIN * random(),
  }
}

function covered(looks: number, wider: number, count: number) {
  let [inside, below90] = [0, 0]
  for (let n = 0; n < count; n++) {
    const real = truth(wider)
    const all = Array.from({ length: looks }, () => {
      const asked = any()
      return look(asked, real(asked))
    })
    const next = any()
    const { early, safe } = learnDrying(all)(next)
    const factor = real(next)
    if (early <= factor && factor <= safe) inside++
    if (factor <= safe) below90++
  }
  return { inside: inside / count, below90: below90 / count }
}

const count = process.argv.includes('--quick') ? QUICK : N
const percent = (x: number) => `${(100 * x).toFixed(1)} %`
for (const wider of [1, 1.5])
  for (const looks of LEARNT_AFTER) {
    const from = performance.now()
    const { inside, below90 } = covered(looks, wider, count)
    const what = `${looks} looks, truth ${wider === 1 ? 'as the priors' : `${wider} × as wide as the priors`}`
    const ms = ((performance.now() - from) / count).toFixed(1)
    console.log(`${what.padEnd(56)} P10–P90 holds ${percent(inside)}, P90 ${percent(below90)}, ${ms} ms each`)
  }

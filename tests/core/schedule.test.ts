/** The schedule: sound by its inspector, the same for the same seed, and better with time. */
import { describe, expect, it } from 'vitest'
import {
  begunFrom,
  chance,
  check,
  type Placed,
  type Schedule,
  type Shop,
  solve,
  sumOf,
  type Task,
  whyHere,
} from '#core/schedule'
import { Builder } from '#core/schedule/build'
import { graphOf } from '#core/schedule/graph'
import { MONDAY_MS, randomShop } from './randomShop'

const MIN_MS = 60_000
const HOUR_MS = 60 * MIN_MS
const DAY_MS = 24 * HOUR_MS

/** The best schedule after so many orders. */
function after(shop: Shop, orders: number, seed = 1): Schedule {
  let best: Schedule | undefined
  for (const progress of solve(shop, seed)) {
    best = progress.best
    if (progress.tried >= orders) break
  }
  return best!
}

describe('300 random shops', () => {
  it('break no hard rule, by rules of thumb and after changes', () => {
    const wrong: string[] = []
    let placed = 0
    let all = 0
    // 3758: an agreed step that opens a window for one that hangs on a yes
    for (const seed of [...Array.from({ length: 300 }, (_, i) => i + 1), 3758]) {
      const shop = randomShop(seed, { jobs: 1 + (seed % 9), tasks: 3 + (seed % 10), hands: 1 + (seed % 4) })
      const best = after(shop, seed % 10 ? 12 : 150, seed)
      all += shop.jobs.flatMap(j => j.tasks).length
      placed += best.placed.length
      const broken = check(shop, best)
      if (broken.length) wrong.push(`${seed}: ${broken.map(b => `${b.rule} ${b.task} ${b.other ?? ''}`).join(', ')}`)
    }
    expect(wrong).toEqual([])
    expect(placed / all).toBeGreaterThan(0.9)
  })
})

it('a search begins where the last schedule stands: nothing moves unless that is better', () => {
  for (let seed = 1; seed <= 40; seed++) {
    const shop = randomShop(seed, { jobs: 6, tasks: 9, hands: 3 })
    const last = after(shop, 120)
    const again = after(begunFrom(shop, last), 1)
    expect(again.cost.hours, `shop ${seed}`).toBeLessThanOrEqual(last.cost.hours + 1e-9)
    expect(again.cost.moved, `shop ${seed}`).toBe(0)
  }
})
it('a choice gives the same schedule whatever was tried before it', () => {
  for (const seed of [2, 5, 11, 3758]) {
    const shop = randomShop(seed, { jobs: 6, tasks: 9, hands: 3 })
    const graph = graphOf(shop)
    const count = graph.nodes.length
    const random = chance(seed)
    const any = () => new Int16Array(count).fill(-1)
    const plain = { hands: any(), rooms: any(), later: new Uint8Array(count) }
    const ways = { ...plain, supports: new Float64Array(count).fill(-1), notBefore: new Float64Array(count) }
    const builder = new Builder(shop, graph, ways)
    let order = Float64Array.from(graph.groups, (_, g) => g)
    let left = 0
    for (let n = 0; n < 60; n++) {
      order = order.map(x => (random() < 0.1 ? x + 20 * (random() - 0.5) : x))
      const choice = { ...ways, order, hands: ways.hands.map(h => (random() < 0.05 ? 0 : h)) }
      const whole = new Builder(shop, graph, ways).build(choice, Infinity)!
      // one that is left half-way may cost no less than it was left for
      const most = n % 3 ? Infinity : whole.cost.hours * (0.9 + 0.2 * random())
      const again = builder.build(choice, most)
      if (again) expect(again).toEqual(whole)
      else left++
      expect(again !== null || whole.cost.hours > most).toBe(true)
    }
    expect(left).toBeGreaterThan(0)
  }
})

const task = (id: string, given: Partial<Task> = {}): Task => ({
  ...{ id, minutes: 60, hands: 1, skill: null, makes: 'other', product: null, air: null, wet_min: 0, area_m2: 1 },
  ...{
    length_mm: 500,
    whole: false,
    after: [],
    opens_ms: null,
    closes_ms: null,
    ifYes: false,
    begun: null,
    pin: null,
    last: null,
  },
  ...given,
})
const after_min = (from: string, min_min = 0, max_min: number | null = null) => ({ from, min_min, max_min })
const week = (from: number, to: number) =>
  [0, 1, 2, 3, 4].map((d): [number, number] => [
    MONDAY_MS + d * DAY_MS + from * HOUR_MS,
    MONDAY_MS + d * DAY_MS + to * HOUR_MS,
  ])
/** Two people, a bench room and a booth; opens at eight. */
const shopOf = (jobs: Shop['jobs'], more: Partial<Shop> = {}): Shop => ({
  now_ms: MONDAY_MS + 8 * HOUR_MS,
  until_ms: MONDAY_MS + 5 * DAY_MS,
  hands: [
    { id: 1, skills: null, spans: week(8, 16) },
    { id: 2, skills: new Set(['repair'] as const), spans: week(8, 12) },
  ],
  rooms: [
    {
      id: 1,
      allows: { dust: true, wet: true, other: true },
      ...{ changeOver_min: 30, oneAtATime: false },
      supports: [],
      closedTo: {},
      shut: [],
    },
    {
      ...{ id: 2, allows: { dust: false, wet: true, other: false }, changeOver_min: 30, oneAtATime: true },
      supports: [{ id: 9, area_m2: 2, length_mm: 2000 }],
      closedTo: { oil: [[MONDAY_MS + 8 * HOUR_MS, MONDAY_MS + 10 * HOUR_MS]] },
      shut: [],
    },
  ],
  jobs,
  ...more,
})
const job = (id: number, tasks: Task[], due_d: number | null = null) => ({
  ...{ id, tasks, weight: 1 },
  due_ms: due_d === null ? null : MONDAY_MS + due_d * DAY_MS,
})
const at = (schedule: Schedule, id: string) => schedule.placed.find(p => p.task === id)!
const clock = (ms: number) => new Date(ms).toISOString().slice(8, 16).replace('T', ' ')

describe('the inspector', () => {
  const wet = { makes: 'wet', wet_min: 120, product: 'oil' } as const
  const shop = shopOf([
    job(1, [
      task('a'),
      task('b', { ...wet, whole: true, after: [after_min('a', 30)] }),
      task('c', { makes: 'dust', after: [after_min('b', 120, 400)] }),
    ]),
    job(2, [task('d', { skill: 'colour' }), task('e', { ...wet, product: 'varnish', air: 'oil', area_m2: 1.5 })]),
    job(3, [task('f', { pin: { start_ms: MONDAY_MS + 33 * HOUR_MS, handId: null, roomId: null } })]),
  ])
  const sound = after(shop, 20)
  const moved = (id: string, how: (p: Placed) => Partial<Placed>): Schedule => ({
    ...sound,
    placed: sound.placed.map(p => (p.task === id ? { ...p, ...how(p) } : p)),
  })
  const later = (id: string, hours: number) =>
    moved(id, p => {
      const parts = p.parts.map(([from, to]) => [from + hours * HOUR_MS, to + hours * HOUR_MS] as const)
      return { parts, start_ms: parts[0]![0], end_ms: parts.at(-1)![1] }
    })
  const same = (id: string, other: string) =>
    moved(id, () => {
      const { handId, roomId, parts, start_ms, end_ms } = at(sound, other)
      return { handId, roomId, parts, start_ms, end_ms }
    })
  const split = (id: string) =>
    moved(id, ({ start_ms }) => {
      const parts = [
        [start_ms, start_ms + HOUR_MS / 2] as const,
        [start_ms + HOUR_MS, start_ms + 1.5 * HOUR_MS] as const,
      ]
      return { parts, end_ms: parts[1]![1] }
    })
  it('has nothing to say of what was placed', () => expect(check(shop, sound)).toEqual([]))
  it.each<[string, Schedule]>([
    ['placed-once', { ...sound, placed: sound.placed.slice(1) }],
    ['placed-once', { ...sound, placed: [...sound.placed, sound.placed[0]!] }],
    ['minutes', moved('a', p => ({ parts: [[p.start_ms, p.end_ms - HOUR_MS / 2]], end_ms: p.end_ms - HOUR_MS / 2 }))],
    ['hours', later('f', 12)],
    ['laid-aside', split('d')],
    ['grid', later('d', 0.1)],
    ['too-early', later('a', -4)],
    ['skill', moved('d', () => ({ handId: 2 }))],
    ['two-at-once', same('d', 'a')],
    ['room', moved('c', () => ({ roomId: 2 }))],
    ['dust-and-wet', moved('e', () => ({ ...at(sound, 'c'), task: 'e', jobId: 2, handId: 2, roomId: 1 }))],
    ['one-at-a-time', moved('e', () => ({ ...at(sound, 'b'), task: 'e', jobId: 2, roomId: 2 }))],
    ['support', moved('e', () => ({ roomId: 2, supportId: null }))],
    ['air', moved('e', () => ({ ...at(sound, 'a'), task: 'e', jobId: 2, roomId: 2, supportId: 9 }))],
    ['wait', same('b', 'a')],
    ['window', later('c', 24)],
    ['pin', later('f', 1)],
  ])('sees %s', (rule, wrong) => {
    // the booth, where it matters
    const both =
      rule === 'one-at-a-time'
        ? { ...wrong, placed: wrong.placed.map(p => (p.task === 'b' ? { ...p, roomId: 2 } : p)) }
        : wrong
    expect(check(shop, both).map(b => b.rule)).toContain(rule)
  })
})

describe('a schedule', () => {
  it('is the same for the same seed, and never worse for more time', () => {
    const shop = randomShop(7, { jobs: 8, tasks: 8, hands: 2 })
    expect(after(shop, 40, 3)).toEqual(after(shop, 40, 3))
    expect(sumOf(after(shop, 120, 3).cost)).toBeLessThanOrEqual(sumOf(after(shop, 10, 3).cost))
  })
  it('is empty for an empty shop', () =>
    expect(after(shopOf([]), 8)).toMatchObject({ placed: [], unplaced: [], cost: { hours: 0 } }))
  it('begins what opens a window so that it closes while somebody is there', () => {
    const tasks = [
      task('on', { minutes: 30, makes: 'wet', wet_min: 240 }),
      task('off', { after: [after_min('on', 240, 300)] }),
    ]
    const shop = shopOf([
      job(1, [task('before', { minutes: 240 }), { ...tasks[0]!, after: [after_min('before')] }, tasks[1]!]),
    ])
    const best = after(shop, 10)
    // at noon it would close at five, when nobody is there
    expect([clock(at(best, 'on').start_ms), clock(at(best, 'off').start_ms)]).toEqual(['01 08:00', '01 12:30'])
    expect(check(shop, best)).toEqual([])
  })
  it('says which window no day is long enough for, and what hangs on it', () => {
    const on = task('on', { minutes: 60, makes: 'wet', whole: true })
    const shop = shopOf([
      job(1, [on, task('off', { after: [after_min('on', 600, 700)] }), task('then', { after: [after_min('off')] })]),
    ])
    const best = after(shop, 6)
    expect(best.unplaced.map(u => [u.task, u.why])).toEqual([
      ['on', 'window'],
      ['off', 'window'],
      ['then', 'behind'],
    ])
    expect(check(shop, best)).toEqual([])
  })
  it('goes on with what is in hand where it is, and tells a window that was missed', () => {
    const begun = { start_ms: MONDAY_MS + 6 * HOUR_MS, handId: 1, roomId: 2 }
    const shop = shopOf([
      job(1, [task('on', { begun, minutes: 120, makes: 'wet' }), task('off', { after: [after_min('on', 30, 60)] })]),
    ])
    const best = after(shop, 6)
    expect(at(best, 'on')).toMatchObject(begun)
    expect(best.missed).toEqual([{ from: 'on', to: 'off', what: 'late', by_min: 225 - 60 + 45 }])
  })
  it('shows what hangs on a yes, and gives its time to others', () => {
    const word = task('word', { hands: 0, minutes: 0 })
    const asked = [word, task('if', { ifYes: true, minutes: 480, skill: 'colour', after: [after_min('word')] })]
    const shop = shopOf([job(1, asked, 1), job(2, [task('sure', { minutes: 480, skill: 'colour' })], 9)])
    const best = after(shop, 10)
    expect([at(best, 'if').start_ms, at(best, 'sure').start_ms]).toEqual([expect.any(Number), shop.now_ms])
    expect(check(shop, best)).toEqual([])
  })
  it('begins first what closes first, whoever is late', () => {
    const closes = (id: string, hours: number) =>
      task(id, { minutes: 30, skill: 'polish', closes_ms: MONDAY_MS + (8 + hours) * HOUR_MS })
    const late = job(1, [task('late', { minutes: 240, skill: 'polish' })], 0)
    const shop = shopOf([late, job(2, [closes('b', 1)]), job(3, [closes('a', 0.4)])])
    const best = after(shop, 10)
    expect(['a', 'b', 'late'].map(id => clock(at(best, id).start_ms))).toEqual(['30 08:00', '30 08:30', '30 09:00'])
    expect(best.missed).toEqual([])
  })
  it('takes the one who is late first', () => {
    const shop = shopOf([
      job(1, [task('a', { minutes: 480, skill: 'polish' })]),
      job(2, [task('b', { minutes: 480, skill: 'polish' })], 1),
    ])
    expect(clock(at(after(shop, 10), 'b').start_ms)).toBe('30 08:00')
  })
  it('refuses a task that follows nothing that there is', () =>
    expect(() => after(shopOf([job(1, [task('a', { after: [after_min('z')] })])]), 1)).toThrow('follows z'))
})

describe('why here', () => {
  const why = (shop: Shop, id: string) => whyHere(shop, after(shop, 6)).get(id)
  it('names what is waited for, whose hands are taken, and what the room dries', () => {
    const first = task('first', { minutes: 120, skill: 'polish' })
    const shop = shopOf([job(1, [first, task('then', { after: [after_min('first', 90)] })])])
    expect(why(shop, 'first')).toEqual({ by: 'now' })
    expect(why(shop, 'then')).toEqual({ by: 'wait', task: 'first' })
    const taken = shopOf([job(1, [first], 0), job(2, [task('next', { skill: 'polish' })])])
    expect(why(taken, 'next')).toEqual({ by: 'hand', task: 'first' })
    const coat = task('coat', { makes: 'wet', wet_min: 120, air: 'oil' })
    const one = { ...shopOf([]).rooms[0]!, supports: [] }
    const dusty = shopOf([job(1, [coat], 0), job(2, [task('dust', { makes: 'dust' })])], { rooms: [one] })
    expect(why(dusty, 'dust')).toMatchObject({ by: 'room', task: 'coat' })
  })
  it('tells of a pin, of what dries, of a window and of the hours', () => {
    const pin = { start_ms: MONDAY_MS + 33 * HOUR_MS, handId: null, roomId: null }
    const shop = shopOf([
      job(1, [task('pinned', { pin })]),
      job(2, [task('dries', { opens_ms: MONDAY_MS + 10.5 * HOUR_MS })]),
      job(3, [
        task('on', { minutes: 30, makes: 'wet', opens_ms: MONDAY_MS + 12 * HOUR_MS }),
        task('off', { after: [after_min('on', 240, 300)] }),
      ]),
    ])
    expect(why(shop, 'pinned')).toEqual({ by: 'pin' })
    expect(why(shop, 'dries')).toEqual({ by: 'dries' })
    expect(why(shop, 'on')).toEqual({ by: 'window', task: 'off' })
  })
})

it('places 300 pieces at once, without a broken rule', () => {
  const shop = randomShop(11, { jobs: 300, tasks: 12, hands: 5, plain: true })
  const best = after(shop, 1)
  expect(best.unplaced).toEqual([])
  expect(check(shop, best)).toEqual([])
})

it('a window that closes within the quarter is kept by beginning at once; one that has closed is missed', () => {
  const now_ms = MONDAY_MS + 8.5 * HOUR_MS + 60_000
  const of = (closes_min: number) => {
    const shop = shopOf([job(1, [task('wipe', { closes_ms: now_ms + closes_min * 60_000 })])], { now_ms })
    const made = after(shop, 6, 1)
    expect(check(shop, made)).toEqual([])
    return made.missed.map(m => m.what)
  }
  expect([of(8), of(0), of(-5)]).toEqual([[], [], ['late']])
})
it('goes on from the last schedule: nothing moves without a gain, and what hangs on a word counts for no move', () => {
  const jobs = [job(1, [task('a'), task('b', { after: [after_min('a', 120)] })], 2), job(2, [task('c')], 3)]
  const made = after(shopOf(jobs), 30, 1)
  const again = begunFrom(shopOf(jobs), made)
  expect(after(again, 1, 2)).toMatchObject({ placed: made.placed, cost: { moved: 0 } })
  const hanging = { ...again, jobs: again.jobs.map(j => ({ ...j, tasks: j.tasks.map(t => ({ ...t, ifYes: true })) })) }
  expect(after({ ...hanging, now_ms: hanging.now_ms + HOUR_MS }, 6, 1).cost.moved).toBe(0)
})

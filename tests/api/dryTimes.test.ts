/** Dry times that learn: looks at two jobs of one oil change what the next plan waits, and can be put back. */
import { beforeAll, expect, it } from 'vitest'
import type { Role } from '#shared/rights'
import { act, type Caller, choice, intake, named, planOf, sayYes, setClock, shopPeople, stepOf, workTo } from './http'

interface Wait {
  from: string
  to: string
  likely: number
  safe: number
  expected?: number
}
interface Product {
  id: number
  class: string
  dries: { likely: number; seen: { product: number; class: number } } | null
}
const DAY_MS = 86_400_000
const people = {} as Record<Role, Caller>
beforeAll(async () => {
  Object.assign(people, await shopPeople())
}, 60_000)

/** A piece whose oil was wiped off; what follows it waits. */
async function oiled(from: string) {
  await setClock(people.owner, from)
  const { id } = await people.office.ok<{ id: number }>('POST /api/pieces', intake())
  // an oil that no other test works with: what is begun by label teaches as well
  await people.lead.ok(`PUT /api/pieces/${id}/choice`, { ...choice, finish: 'raw-linseed', rowVersion: 1 })
  await sayYes(people.office, id)
  const plan = await planOf(people.owner, id)
  const off = plan.steps.find(s => s.kind === 'oil-off')!
  await workTo(people, id, from, named(off))
  const { waits } = (await planOf(people.owner, id)) as unknown as { waits: Wait[] }
  return { id, off: off.key, next: waits.find(w => w.from === off.key && w.expected)!.to }
}
const waitOf = async (id: number, from: string, to: string): Promise<Wait> => {
  const { waits } = (await planOf(people.owner, id)) as unknown as { waits: Wait[] }
  return waits.find(w => w.from === from && w.to === to)!
}
const store = async () => (await people.owner.ok<{ products: Product[] }>('GET /api/store')).products
const finished = async (id: number, key: string) =>
  ((await stepOf(people.owner, id, key)) as unknown as { finished_ms: number }).finished_ms

it('an oil that takes two and a half times its label is known after two jobs, within 25 %', async () => {
  let usual = 0
  for (const from of ['2027-05-03T08:00:00+02:00', '2027-06-07T08:00:00+02:00']) {
    const { id, off, next } = await oiled(from)
    const before = await waitOf(id, off, next)
    usual ||= before.expected!
    expect(before.expected! / usual).toBeCloseTo(1, 1)
    const ended = await finished(id, off)
    for (const [days, kind] of [
      [2.2, 'not-dry'],
      [2.5, 'dry'],
    ] as const) {
      const at = new Date(ended + days * (usual / 1440) * DAY_MS).toISOString()
      await setClock(people.owner, at)
      const reply = await act(people.lead, kind, await stepOf(people.owner, id, next), at, { by: 'rag' })
      expect(reply.status).toBe(200)
    }
  }
  const { id, off, next } = await oiled('2027-07-05T08:00:00+02:00')
  const learnt = await waitOf(id, off, next)
  expect(Math.abs(learnt.likely / learnt.expected! / 2.5 - 1)).toBeLessThan(0.25)
  expect(learnt.safe).toBeGreaterThan(learnt.likely)
})
it('the store shows what was learnt, and puts it back for a product alone', async () => {
  const { id } = await people.owner.ok<{ id: number }>('POST /api/products', {
    ...{ name: 'Linseed oil, raw', class: 'raw-linseed', priceMinor: 9000 },
  })
  const seen = async () => (await store()).find(p => p.id === id)!.dries!
  expect((await seen()).seen).toMatchObject({ product: 0 })
  expect((await seen()).seen.class).toBeGreaterThanOrEqual(2)
  expect((await seen()).likely).toBeGreaterThan(1.5)
  await people.owner.ok(`DELETE /api/products/${id}/dry-times`)
  // what its kind taught stays
  expect((await seen()).likely).toBeGreaterThan(1.5)
  await people.owner.ok(`PUT /api/products/${id}/dry-times`)
})
it('what was begun counts as dry by then, and is taken back with a mis-tap', async () => {
  const { id, off, next } = await oiled('2027-08-02T08:00:00+02:00')
  const learnt = async () => {
    const { likely, expected } = await waitOf(id, off, next)
    return likely / expected!
  }
  const before = await learnt()
  let at = Date.parse('2027-08-06T08:00:00+02:00')
  let status = 409
  for (let tries = 0; status !== 200 && tries < 60; tries++) {
    at += 1_800_000
    await setClock(people.owner, new Date(at).toISOString())
    await people.lead.ok('POST /api/air', { temperature_C: 21, rh_pct: 45 })
    status = (await act(people.lead, 'start', await stepOf(people.owner, id, next), new Date(at).toISOString())).status
  }
  expect(status).toBe(200)
  expect(await learnt()).not.toBe(before)
  const undone = await act(people.lead, 'undo', await stepOf(people.owner, id, next), new Date(at).toISOString())
  expect(undone.status).toBe(200)
  expect(await learnt()).toBeCloseTo(before, 6)
})
it('minutes of work that is done are learnt by its kind, and put away by who sets up the shop', async () => {
  const kinds = async () =>
    (await people.finisher.ok<{ kinds: { kind: string; factor: number; seen: number }[] }>('GET /api/paces')).kinds
  const from = '2027-08-02T08:00:00+02:00'
  await setClock(people.owner, from)
  const { id } = await people.office.ok<{ id: number }>('POST /api/pieces', intake())
  await people.lead.ok(`PUT /api/pieces/${id}/choice`, { ...choice, rowVersion: 1 })
  await sayYes(people.office, id)
  const first = (await planOf(people.owner, id)).steps.find(s => s.start.may)!
  // other pieces may have been worked on faster
  const before = (await kinds()).find(k => k.kind === first.kind)?.factor ?? 1
  const begun = new Date(Date.parse(from) + 600_000).toISOString()
  await setClock(people.owner, begun)
  expect((await act(people.finisher, 'start', first, begun)).status).toBe(200)
  const later = new Date(Date.parse(begun) + 2 * first.attended_min * 60_000).toISOString()
  await setClock(people.owner, later)
  const ended = await act(people.finisher, 'finish', await stepOf(people.owner, id, first.key), later)
  expect(ended.status).toBe(200)
  const its = (await kinds()).find(k => k.kind === first.kind)!
  expect(its.seen).toBeGreaterThanOrEqual(1)
  expect(its.factor).toBeGreaterThan(before)
  expect(its.factor).toBeLessThan(2)
  expect((await people.finisher.send('DELETE /api/paces')).status).toBe(403)
  const { was } = await people.owner.ok<{ was: string | null }>('DELETE /api/paces')
  expect(await kinds()).toEqual([])
  await people.owner.ok('PUT /api/paces', { from: was })
  expect((await kinds()).find(k => k.kind === first.kind)).toEqual(its)
})

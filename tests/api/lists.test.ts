import Papa from 'papaparse'
import { beforeAll, describe, expect, it } from 'vitest'
import type { Role } from '#shared/rights'
import { LISTS } from '../../server/services/lists/lists'
import { act, BASE, type Caller, choice, intake, planOf, sayYes, setClock, shopPeople } from './http'

/** Every list of the shop goes out as CSV, as far as somebody may see it. */
const people = {} as Record<Role, Caller>
beforeAll(async () => {
  Object.assign(people, await shopPeople())
  await setClock(people.owner, '2027-05-03T09:00:00+02:00')
  const client = { name: '=cmd|calc', email: '', phone: '' }
  const { id } = await people.owner.ok<{ id: number }>(
    'POST /api/pieces',
    intake({ client, name: 'Chest, "old"\nlow' }),
  )
  await people.lead.ok(`PUT /api/pieces/${id}/choice`, { ...choice, rowVersion: 1 })
  await sayYes(people.office, id)
  const wash = (await planOf(people.lead, id)).steps.find(s => s.kind === 'wash')!
  await setClock(people.owner, '2027-05-03T10:00:00+02:00')
  const begun = await act(people.finisher, 'start', wash, '2027-05-03T09:30:00+02:00')
  expect(begun.status, begun.body.message).toBe(200)
  const soap = { name: `Soap ${id}`, class: 'mild-soap', priceMinor: 4000 }
  const { id: productId } = await people.lead.ok<{ id: number }>('POST /api/products', soap)
  const { id: lot } = await people.lead.ok<{ id: number }>('POST /api/lots', { productId, code: 'S-list', amount: 2.5 })
  await people.lead.ok(`POST /api/lots/${lot}/acts`, {
    ...{ rowVersion: 1, act: { kind: 'spill', amount: 1.25, word: 'fell' } },
  })
})
async function list(name: string, who: Caller, query = '') {
  const reply = await fetch(`${BASE}/api/lists/${name}${query}`, { headers: { cookie: who.cookie } })
  return { status: reply.status, type: reply.headers.get('content-type') ?? '', text: await reply.text() }
}
const parsed = (text: string) => Papa.parse<Record<string, string>>(text, { header: true, skipEmptyLines: true })

describe('a list', () => {
  it.each(Object.keys(LISTS))('%s is read by a second reader, line by line', async name => {
    const { status, type, text } = await list(name, people.owner)
    expect(status).toBe(200)
    expect(type).toContain('text/csv')
    expect(text.endsWith('\r\n')).toBe(true)
    const { data, errors, meta } = parsed(text)
    // one column alone has no delimiter to be found
    expect(errors.filter(e => e.type !== 'Delimiter')).toEqual([])
    for (const row of data) expect(Object.keys(row)).toEqual(meta.fields)
  })
  it('keeps quotes and lines of its texts, and makes no formula of a name', async () => {
    const { data } = parsed((await list('pieces', people.office)).text)
    const piece = data.find(r => r.name!.startsWith('Chest, "old"'))!
    expect(piece.client).toBe("'=cmd|calc")
    expect(piece.name).toContain('"old"')
  })
  it('of cans changes nothing when it is read back as it was written, those thrown away as well', async () => {
    const { products } = await people.lead.ok<{ products: { name: string; id: number }[] }>('GET /api/store')
    const { id: productId } = products.find(p => p.name.startsWith('Soap '))!
    const { id } = await people.lead.ok<{ id: number }>('POST /api/lots', { productId, code: 'S-gone', amount: 1 })
    await people.lead.ok(`POST /api/lots/${id}/acts`, { rowVersion: 1, act: { kind: 'throw', word: 'skin' } })
    const { text } = await list('lots', people.lead)
    expect(parsed(text).data.find(r => r.code === 'S-gone')!['thrown away']).not.toBe('')
    const read = await people.lead.ok<{ fresh: []; changed: []; wrong: []; same: number }>('POST /api/lists/read', {
      ...{ list: 'lots', text, take: false },
    })
    expect(read).toMatchObject({ fresh: [], changed: [], wrong: [], same: parsed(text).data.length })
  })
  it('writes a decimal comma with semicolons where asked for; what is below nought stays a number', async () => {
    const comma = Papa.parse<Record<string, string>>((await list('moves', people.lead, '?decimal=comma')).text, {
      ...{ header: true, delimiter: ';', skipEmptyLines: true },
    }).data
    expect(comma.find(r => r.code === 'S-list' && r.kind === 'spilt')).toMatchObject({ amount: '-1,25', kind: 'spilt' })
    const point = parsed((await list('moves', people.lead)).text).data
    expect(point.find(r => r.code === 'S-list' && r.kind === 'spilt')!.amount).toBe('-1.25')
  })
  it('of money is for whom prices are for; hours of others are for the owner', async () => {
    for (const [name, of] of Object.entries(LISTS))
      expect((await list(name, people.finisher)).status, name).toBe('prices' in of ? 403 : 200)
    const persons = async (who: Caller) => new Set(parsed((await list('spells', who)).text).data.map(r => r.person))
    expect((await persons(people.finisher)).size).toBeLessThanOrEqual(1)
    expect((await persons(people.office)).size).toBe(0)
    expect((await persons(people.owner)).size).toBeGreaterThan(0)
  })
  it('that is none is not found, a decimal sign that is none is refused, and a stranger gets nothing', async () => {
    expect((await list('passwords', people.owner)).status).toBe(404)
    expect((await list('__proto__', people.owner)).status).toBe(404)
    expect((await list('pieces', people.owner, '?decimal=both')).status).toBe(422)
    expect((await fetch(`${BASE}/api/lists/pieces`)).status).toBe(401)
  })
})

describe('products from a table', () => {
  interface Read {
    fresh: string[]
    changed: { name: string; what: string[] }[]
    same: number
    wrong: { line: number; says: string }[]
  }
  const read = (text: string, take: boolean, who = people.lead) =>
    who.send<Read & { message: string }>('POST /api/lists/read', { list: 'products', text, take })
  it('are shown before they are taken, and taken all together or not at all', async () => {
    const bad = 'name,class,price\r\nImported oil,varnish-oil,300\r\nImported sofa,sofa,1\r\n'
    const { body } = await read(bad, false)
    expect(body).toMatchObject({ fresh: ['Imported oil'], wrong: [{ line: 3 }] })
    const refused = await read(bad, true)
    expect([refused.status, refused.body.message]).toEqual([422, expect.stringContaining('Line 3')])
    const good = bad.split('\r\n').slice(0, 2).join('\r\n')
    expect((await read(good, false)).body.fresh).toEqual(['Imported oil'])
    expect((await read(good, true)).status).toBe(200)
    expect((await read(good, false)).body).toMatchObject({ fresh: [], changed: [], wrong: [] })
    const dearer = good
      .replace('300', '310,50')
      .replaceAll(',varnish-oil,', ';varnish-oil;')
      .replace('name,class,price', 'name;class;price')
    expect((await read(dearer, true)).body.changed).toEqual([{ name: 'Imported oil', what: ['price_minor'] }])
    expect((await read('name,class\nImported oil,rag', false)).body.wrong[0]!.says).toContain('another class')
  })
  it('are the list that goes out: read in again nothing changes', async () => {
    const { text } = await list('products', people.lead)
    const { body } = await read(text, false)
    expect(body).toMatchObject({ fresh: [], changed: [], wrong: [] })
    expect(body.same).toBeGreaterThan(0)
    expect((await read(text, true, people.finisher)).status).toBe(403)
    expect((await read('', false)).status).toBe(422)
    expect((await read('name\n', false)).status).toBe(422)
  })
})

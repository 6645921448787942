import { execFileSync } from 'node:child_process'
import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { beforeAll, beforeEach, describe, expect, it } from 'vitest'
import type { Role } from '#shared/rights'
import { BASE, Caller, choice, intake, planOf, replied, sayYes, setClock, shopPeople, workTo } from './http'

/** Papers as others read them: poppler for structure, fonts and text, qpdf for the file and its alternative texts. */
const people = {} as Record<Role, Caller>
const dir = mkdtempSync(join(tmpdir(), 'papers-'))
beforeAll(async () => {
  Object.assign(people, await shopPeople())
})
beforeEach(() => setClock(people.owner, '2027-04-12T09:00:00+02:00'))

async function paper(path: string, caller: Caller = people.office) {
  const reply = await fetch(BASE + path, { headers: { cookie: caller.cookie } })
  expect(reply.status, path).toBe(200)
  expect(reply.headers.get('content-type')).toBe('application/pdf')
  const file = join(dir, `${path.replace(/\W+/g, '-')}.pdf`)
  writeFileSync(file, Buffer.from(await reply.arrayBuffer()))
  const run = (name: string, ...args: string[]) => execFileSync(name, args, { encoding: 'utf8' })
  return {
    structure: run('pdfinfo', '-struct-text', file),
    info: run('pdfinfo', file),
    fonts: run('pdffonts', file).trim().split('\n').slice(2),
    text: run('pdftotext', '-layout', file, '-'),
    check: run('qpdf', '--check', file),
    objects: run('qpdf', '--json', file),
  }
}
const QUOTING = { days: 30, depositBp: 0, words: '', freeDays: 14, dayMinor: 0 }
const planned = async (more: Record<string, unknown> = {}) => {
  const { id } = await people.owner.ok<{ id: number }>('POST /api/pieces', intake(more))
  await people.lead.ok(`PUT /api/pieces/${id}/choice`, { ...choice, rowVersion: 1 })
  return id
}
/** Every font is embedded; the file is whole and tagged, with a title and a language. */
function wellMade({ fonts, check, info, structure, objects }: Awaited<ReturnType<typeof paper>>) {
  expect(fonts.length).toBeGreaterThan(0)
  for (const line of fonts) expect(line).toMatch(/\s+yes yes yes\s+/)
  expect(check).toContain('No syntax or stream encoding errors')
  expect(info).toMatch(/Tagged:\s+yes/)
  expect(info).toMatch(/Title:\s+\S/)
  expect(objects).toContain('"/Lang"')
  expect(structure).toMatch(/H1 \(block\)/)
  expect(structure).toMatch(/Table/)
  expect(structure).toMatch(/Scope \/(Column|Row)/)
}

describe('a quotation', () => {
  it('has lines that make its sum, names in any Latin alphabet, and is kept by version', async () => {
    await people.owner.ok('PUT /api/shop/quoting', { ...QUOTING, days: 20, depositBp: 3000, words: 'Welcome.' })
    const id = await planned({ client: { name: 'Łucja Dvořáková', email: 'lucja@example.invalid', phone: '' } })
    const made = await people.office.ok<{ id: number; version: number }>(`POST /api/pieces/${id}/quotations`, {
      words: '',
    })
    const one = await paper(`/api/quotations/${made.id}`)
    wellMade(one)
    expect(one.text).toContain(`Quotation ${id}-1`)
    expect(one.structure.replace(/"\s+"/g, '')).toContain('Łucja Dvořáková')
    expect(one.text).toMatch(/Welcome\./)
    expect(one.text).toMatch(/30 %/)
    expect(one.text).toContain('2 May 2027')
    const figures = [...one.text.matchAll(/SEK\s([\d,]+\.\d\d)/g)].map(m =>
      Math.round(Number(m[1]!.replaceAll(',', '')) * 100),
    )
    const sum = figures.indexOf(Math.max(...figures.slice(0, figures.length)))
    expect(sum).toBeGreaterThan(0)
    const total = Number(/Sum\s+SEK\s([\d,.]+)/.exec(one.text)![1]!.replaceAll(',', ''))
    const lines = figures.slice(
      0,
      figures.findIndex(f => f === Math.round(total * 100)),
    )
    expect(lines.reduce((a, b) => a + b, 0)).toBe(Math.round(total * 100))
    // what was given stays as it was; the next is another version
    const { rowVersion } = await planOf(people.lead, id)
    await people.lead.ok(`PUT /api/pieces/${id}/choice`, { ...choice, finish: 'wiping-varnish', rowVersion })
    expect(
      (await people.office.ok<{ version: number }>(`POST /api/pieces/${id}/quotations`, { words: 'Anew' })).version,
    ).toBe(2)
    expect((await paper(`/api/quotations/${made.id}`)).text).toBe(one.text)
    expect((await people.finisher.send(`GET /api/quotations/${made.id}`)).status).toBe(403)
    const { address } = await people.office.ok<{ address: string }>(`POST /api/pieces/${id}/link`, {})
    const [link, other] = [address.split('/').at(-1)!, await planned()]
    expect((await paper(`/api/answer/${link}/quotations/${made.id}`, new Caller())).text).toContain(`Quotation ${id}-1`)
    const foreign = await people.office.ok<{ id: number }>(`POST /api/pieces/${other}/quotations`, { words: '' })
    expect((await new Caller().send(`GET /api/answer/${link}/quotations/${foreign.id}`)).status).toBe(404)
    await people.owner.ok('PUT /api/shop/quoting', QUOTING)
  })
  it('by part has the same sum', async () => {
    const id = await planned()
    const sumOf = async (by: string) => {
      const made = await people.office.ok<{ id: number }>(`POST /api/pieces/${id}/quotations`, { words: '', by })
      const { text } = await paper(`/api/quotations/${made.id}`)
      return { text, sum: /Sum\s+SEK\s([\d,.]+)/.exec(text)![1] }
    }
    const [stage, part] = [await sumOf('stage'), await sumOf('part')]
    expect(part.sum).toBe(stage.sum)
    expect(part.text).not.toMatch(/Materials/)
    expect(part.text).toMatch(/Chair|Top|Chest|Table|Door|Seat/i)
  })
  it('comes on Letter where it is asked for, and wants a plan', async () => {
    const id = await planned()
    const made = await people.office.ok<{ id: number }>(`POST /api/pieces/${id}/quotations`, { words: '' })
    expect((await paper(`/api/quotations/${made.id}?size=LETTER`)).info).toMatch(/612 x 792/)
    expect((await paper(`/api/quotations/${made.id}?size=A4`)).info).toMatch(/595\.\d+ x 841/)
    expect((await people.office.send(`GET /api/quotations/${made.id}?size=A9`)).status).toBe(422)
    const { id: bare } = await people.owner.ok<{ id: number }>('POST /api/pieces', intake())
    expect((await people.office.send(`POST /api/pieces/${bare}/quotations`, { words: '' })).body.code).toBe('no-route')
  })
})

describe('the bench', () => {
  it('has a ticket with every step, its cautions, and a code that opens the piece', async () => {
    const id = await planned()
    const ticket = await paper(`/api/pieces/${id}/ticket`, people.finisher)
    wellMade(ticket)
    expect(ticket.objects).toMatch(/"\/Alt": "u:QR code\. Opens piece \d+"/)
    const plain = ticket.structure.replace(/\s+/g, ' ')
    for (const step of (await planOf(people.lead, id)).steps.filter(s => s.kind !== 'approval'))
      expect(plain).toContain((step as unknown as { title: string }).title.replace('→', 'to').replace(/\s+/g, ' '))
    expect(plain).toMatch(/licensed practice/)
  })
  it('and at the end a statement: worked against planned, never more than the worst that was agreed', async () => {
    const id = await planned()
    expect((await people.office.send(`GET /api/pieces/${id}/statement`)).body.code).toBe('nothing')
    await sayYes(people.office, id)
    const { id: asked } = await people.office.ok<{ id: number }>(`POST /api/pieces/${id}/approvals`, {
      ...{ words: '', surface: false, work: [{ says: 'New lock', priceMinor: 45_000 }] },
    })
    await people.office.ok(`POST /api/approvals/${asked}/answer`, { ...replied(), via: 'phone', name: 'C', says: '' })
    await workTo(people, id, '2027-04-12T10:00:00+02:00', 'sand')
    const statement = await paper(`/api/pieces/${id}/statement`)
    wellMade(statement)
    // what was agreed beside the plan is a step that the bench sees
    expect((await planOf(people.lead, id)).steps.map(st => st.title)).toContain('New lock')
    expect(statement.text).toMatch(/New lock \(with tax\)\s+SEK\s450\.00/)
    expect(statement.text).toMatch(/To pay/)
    expect(statement.text).toMatch(/Cleaned\s+\d+ min\s+\d+ min/)
    const record = await paper(`/api/pieces/${id}/record`)
    wellMade(record)
    for (const done of ['12 Apr 2027', 'Wash with mild soap and water']) expect(record.text).toContain(done)
    const delivery = await paper(`/api/pieces/${id}/delivery`, people.finisher)
    wellMade(delivery)
    expect(delivery.text).toMatch(/Taken by/)
  })
  it('and the condition of a piece, with what is planned: faces and section as figures that are told', async () => {
    const id = await planned()
    const condition = await paper(`/api/pieces/${id}/condition`, people.finisher)
    wellMade(condition)
    expect(condition.text).toMatch(/What is planned/)
    for (const figure of [/Section: found and planned layers/, /faces? of the piece to one scale/])
      expect(condition.objects).toMatch(figure)
    const { id: bare } = await people.owner.ok<{ id: number }>('POST /api/pieces', intake())
    expect((await paper(`/api/pieces/${bare}/condition`)).text).not.toMatch(/What is planned/)
  })
  it('and a card of colours, once there are bands', async () => {
    const id = await planned()
    expect((await people.office.send(`GET /api/pieces/${id}/colours`)).body.code).toBe('nothing')
    const { id: readingId } = await people.finisher.ok<{ id: number }>('POST /api/readings', {
      ...{ name: 'Bare', role: 'wood', species: 'oak', pieceId: id },
      lab: { L: 60, a: 10, b: 22, light: 'd65', observer: '10' },
    })
    const laid = { applicator: 'cloth', wipe: 'normal', coats: 0, grit: 180, scale: 'P', note: 'Seen from the window' }
    await people.finisher.ok(`POST /api/pieces/${id}/bands`, { stepKey: 'bare', readingId, ...laid })
    const card = await paper(`/api/pieces/${id}/colours`)
    expect(card.structure).toMatch(/H3/)
    for (const says of ['Bare wood', 'P180', 'Seen from the window']) expect(card.text).toContain(says)
    expect(card.objects).toMatch(/"\/Alt": "u:Colour of Bare wood, #[0-9a-f]{6}"/)
    expect(card.check).toContain('No syntax or stream encoding errors')
  })
})

describe('labels', () => {
  const sizeOf = ({ info }: Awaited<ReturnType<typeof paper>>) =>
    /Page size:\s+([\d.]+) x ([\d.]+)/
      .exec(info)!
      .slice(1)
      .map(pt => Math.round((Number(pt) * 25.4) / 72))
  it('of the piece and its parts come in their own size, on a roll, and on sheets of either paper', async () => {
    const id = await planned()
    expect((await people.office.send(`GET /api/pieces/${id}/labels?of=parts`)).body.code).toBe('nothing')
    const item = { name: 'Knob', kind: 'hardware', count: 2, state: 'present', set: '', note: '' }
    for (const mark of ['K1', 'K2']) await people.lead.ok(`POST /api/pieces/${id}/items`, { ...item, mark })
    const one = await paper(`/api/pieces/${id}/labels`, people.finisher)
    expect(sizeOf(one)).toEqual([70, 37])
    expect(one.objects).toMatch(/"\/Alt": "u:QR code\. Opens piece \d+"/)
    for (const line of one.fonts) expect(line).toMatch(/\s+yes yes yes\s+/)
    const roll = await paper(`/api/pieces/${id}/labels?of=parts&stock=roll`)
    expect(sizeOf(roll)).toEqual([57, 32])
    expect(roll.info).toMatch(/Pages:\s+2/)
    for (const text of [`${id}-K1`, `${id}-K2`, '2 × Knob']) expect(roll.text).toContain(text)
    expect(sizeOf(await paper(`/api/pieces/${id}/labels?of=parts&stock=sheet&size=LETTER`))).toEqual([216, 279])
    const sheet = await paper(`/api/pieces/${id}/labels?of=parts&stock=sheet&size=A4&from=24`)
    expect([sizeOf(sheet), /Pages:\s+(\d)/.exec(sheet.info)![1]]).toEqual([[210, 297], '2'])
    for (const bad of ['stock=huge', 'from=0', 'from=31', 'of=all'])
      expect((await people.office.send(`GET /api/pieces/${id}/labels?${bad}`)).status).toBe(422)
  })
})

import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  type PaperPart,
  type Quotation,
  quotationPaper,
  recordPaper,
  type Statement,
  statementPaper,
  ticketPaper,
} from '#core/papers'
import { runsOf } from '../../server/workers/paper'

const money = (minor: number) => `${minor / 100}`
const tableOf = (parts: readonly PaperPart[]) => parts.find(p => p.kind === 'table')!
const factsOf = (parts: readonly PaperPart[]) =>
  new Map(parts.flatMap(p => (p.kind === 'facts' ? p.rows.map(([name, says]) => [name, says] as const) : [])))
const listsOf = (parts: readonly PaperPart[]) => parts.flatMap(p => (p.kind === 'list' ? p.items : []))

const quotation = (more: Partial<Quotation> = {}): Quotation => ({
  ...{ no: '7-2', shop: 'Shop', client: 'Client', piece: 'Chest', madeOn: '1 May', validUntil: '31 May', words: '' },
  work: ['Cleaned', 'Finished, in 2 coats'],
  lines: [
    { says: 'Cleaned', minutes: 95, net_minor: 95_000 },
    { says: 'Materials', minutes: null, net_minor: 5000 },
  ],
  ...{ tax_bp: 2500, tax_minor: 25_000, total_minor: 125_000, worst_minor: 180_000, deposit_bp: 0, gate: null },
  ...{ readyLikely: '10 May', readySafe: '20 May' },
  ...more,
})

describe('a quotation', () => {
  it('shows lines, tax and sum in order, and says how long it holds', () => {
    const { title, parts, foot } = quotationPaper(quotation(), money)
    expect([title, foot]).toEqual(['Quotation 7-2: Chest', 'Shop · Quotation 7-2'])
    expect(tableOf(parts).rows).toEqual([
      ['Cleaned', '1 h 35', '950'],
      ['Materials', '', '50'],
      ['Tax, 25 %', '', '250'],
      ['Sum', '', '1250'],
    ])
    expect(factsOf(parts).get('This holds until')).toBe('31 May')
    expect(factsOf(parts).get('Ready')).toBe('10 May; 20 May at the latest')
  })
  it.each([
    [{ worst_minor: 125_000 }, 'At worst', undefined],
    [{ worst_minor: 125_001 }, 'At worst', '1250.01. Beyond that we ask you first.'],
    [{ deposit_bp: 0 }, 'Before work begins', undefined],
    [{ deposit_bp: 3333 }, 'Before work begins', '416.63 (33.33 %)'],
  ])('%j: %s', (more, name, says) => {
    expect(factsOf(quotationPaper(quotation(more), money).parts).get(name)).toBe(says)
  })
  it('says what may fail only where something may', () => {
    const says = (gate: string | null) => JSON.stringify(quotationPaper(quotation({ gate }), money).parts)
    expect(says('halos')).toContain('This way may fail: halos')
    expect(says(null)).not.toContain('may fail')
  })
})

describe('a statement', () => {
  const statement = (more: Partial<Statement> = {}): Statement => ({
    ...{ id: 7, shop: 'Shop', client: 'Client', piece: 'Chest', madeOn: '1 May', extras: [] },
    lines: [{ says: 'Sanded', planned_min: 60, worked_min: 75.4 }],
    ...{ labour_minor: 75_000, materials_minor: 5000, tax_bp: 2500, tax_minor: 20_000, actual_minor: 100_000 },
    ...{ agreed_minor: 90_000, worst_minor: 120_000 },
    ...more,
  })
  const toPay = (more: Partial<Statement>) => {
    const tables = statementPaper(statement(more), money).parts.filter(p => p.kind === 'table')
    return Number(tables[1]!.rows.at(-1)![1])
  }
  it('charges what was worked, and never more than the worst that was agreed', () => {
    expect(toPay({})).toBe(1000)
    expect(toPay({ actual_minor: 150_000 })).toBe(1200)
    expect(toPay({ actual_minor: 150_000, worst_minor: null })).toBe(900)
    expect(toPay({ actual_minor: 150_000, agreed_minor: null, worst_minor: null })).toBe(1500)
    fc.assert(
      fc.property(fc.nat(10_000_000), fc.nat(10_000_000), (actual_minor, worst_minor) => {
        expect(toPay({ actual_minor, worst_minor })).toBeLessThanOrEqual(worst_minor / 100)
      }),
    )
  })
  it('adds planned and worked minutes', () => {
    expect(tableOf(statementPaper(statement(), money).parts).rows).toEqual([
      ['Sanded', '60 min', '75 min'],
      ['Together', '60 min', '75 min'],
    ])
  })
})

describe('a ticket', () => {
  const step = { faces: '', minutes: 10, amount: '', wait: '', cautions: ['Mask.'], done: false }
  const ticket = {
    ...{ id: 3, piece: 'Box', client: 'C', shop: 'S', madeOn: 'today', dueOn: '', surface: [], marks: [] },
    address: 'http://127.0.0.1/pieces/3/plan',
  }
  it('marks what is done, and tells each caution of what is left once', () => {
    const { parts } = ticketPaper({
      ...ticket,
      steps: [
        { ...step, title: 'Wash', done: true, cautions: ['Gloves.'] },
        { ...step, title: 'Sand', faces: 'top' },
        { ...step, title: 'Oil', minutes: 0 },
      ],
    })
    expect(tableOf(parts).rows.map(r => [r[0], r[1], r[3]])).toEqual([
      ['x', 'Wash', '10'],
      ['', 'Sand (top)', '10'],
      ['', 'Oil', ''],
    ])
    expect(listsOf(parts)).toEqual(['Mask.'])
    expect(factsOf(parts).get('Promised')).toBe('no day')
  })
})

describe('a treatment record', () => {
  it('leaves out what there is nothing to say of', () => {
    const record = {
      ...{ id: 3, shop: 'S', client: 'C', piece: 'Box', madeOn: 'today', takenInOn: 'then', found: [], finishes: [] },
      ...{ tests: [], steps: [], materials: [], kept: [] },
    }
    expect(
      recordPaper(record)
        .parts.filter(p => p.kind === 'heading')
        .map(p => p.text),
    ).toEqual(['What was done'])
    expect(recordPaper({ ...record, found: ['top: dents'] }).parts.some(p => p.kind === 'list')).toBe(true)
  })
})

describe('runs of one font', () => {
  it('take letters of other Latin alphabets from its extension, and lose none', () => {
    expect(runsOf('Łucja å Dvořák').map(r => [r.text, r.extended])).toEqual([
      ['Ł', true],
      ['ucja å Dvo', false],
      ['ř', true],
      ['ák', false],
    ])
    fc.assert(
      fc.property(fc.string(), text => {
        const plain = text.replaceAll('→', 'to').replaceAll('≤', 'at most ')
        expect(
          runsOf(text)
            .map(r => r.text)
            .join(''),
        ).toBe(plain)
      }),
    )
  })
})

import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { materialOf, MATERIALS } from '#core/materials'
import {
  CARE,
  CARE_KINDS,
  careKind,
  carePaper,
  cellOf,
  coloursPaper,
  conditionPaper,
  deliveryPaper,
  LETTER_KINDS,
  letterOf,
  type PaperPart,
  type Quotation,
  quotationPaper,
  recordPaper,
  renewAfter_y,
  type Statement,
  statementPaper,
  STOCKS,
  ticketPaper,
  unknownFills,
  useFrom,
  USUAL_WORDS,
} from '#core/papers'
import { storageOf } from '#core/estimate'
import type { Report } from '#core/report'
import { dayWords } from '#core/timetable'
import { runsOf } from '../../server/workers/sheet'

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
    ...{ agreed_minor: 90_000, worst_minor: 120_000, storage: null, deposit_minor: 0 },
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
  it('adds storage beyond the free days, and takes off what was paid before', () => {
    const last = (more: Partial<Statement>) =>
      statementPaper(statement(more), money)
        .parts.filter(p => p.kind === 'table')[1]!
        .rows.at(-1)
    expect(last({ storage: { days: 3, minor: 3000 }, deposit_minor: 20_000 })).toEqual(['To pay', '830'])
    expect(last({ deposit_minor: 110_000 })).toEqual(['To give back', '100'])
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
    ...{
      id: 3,
      piece: 'Box',
      client: 'C',
      shop: 'S',
      madeOn: 'today',
      dueOn: '',
      surface: [],
      marks: [],
      section: null,
    },
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

describe('a condition report', () => {
  const face = {
    ...{ id: 1, part: 'Top', name: 'upper side', scope: 'refinish', rank: 'show', shape: 'flat', copies: 1 },
    ...{ orientation: 'horizontal', length_mm: 900, width_mm: 400, area_m2: 0.36, species: 'oak', substrate: 'solid' },
    ...{ veneer_mm: null, film_um: null, finishGroup: 'A', length_typed: '900', width_typed: '400' },
  }
  const finding = (place: object) => ({
    ...{ number: 1, faceId: 1, kind: 'white-ring', grade: 2, wish: 'mend', place, note: '', photographs: [] },
  })
  const report = (more: object = {}) =>
    ({
      ...{ made_at: '2026-05-01T10:00:00Z', name: 'now', shop: 'S', faces: [face], findings: [], tests: [] },
      piece: {
        ...{ id: 3, name: 'Box', client: 'C', period: 'unknown', refinished: 'no', keep_patina: true, note: '' },
        taken_in_at: '2026-04-30T10:00:00Z',
      },
      ...{ conclusions: [], hazards: [], walk: [], moisture: [], patches: [], items: [], verdicts: [] },
      ...{ notExamined: [], photographs: [] },
      ...more,
    }) as unknown as Report
  const headings = (r: Report, plan: Parameters<typeof conditionPaper>[1] = null) =>
    conditionPaper(r, plan, 'UTC').parts.flatMap(p => (p.kind === 'heading' ? p.text : []))
  const drawing = (r: Report) => conditionPaper(r, null, 'UTC').parts.find(p => p.kind === 'drawing')!
  const corners = (r: Report) =>
    drawing(r).shapes.flatMap(x =>
      x.tag === 'path' && String(x.at.d).endsWith('Z')
        ? [...String(x.at.d).matchAll(/([\d.]+) ([\d.]+)/g)].map(m => [Number(m[1]), Number(m[2])])
        : [],
    )

  it('says what was found, and only what there is something to say of', () => {
    expect(headings(report())).toEqual(['Faces and findings', 'The finish', 'Hazards', 'What was not examined'])
    expect(
      headings(report({ walk: [{ key: 'a', asks: 'Q?', options: ['x-y'], by: 'T', at: '2026-05-01' }] })),
    ).toContain('The walk round the piece')
  })
  it('is dated by the days of the shop, not of the clock it was kept by', () => {
    const made = report({ made_at: '2026-05-01T22:30:00Z' })
    expect(conditionPaper(made, null, 'Europe/Stockholm').from[1]).toBe('2 May 2026')
    expect(conditionPaper(made, null, 'America/Chicago').from[1]).toBe('1 May 2026')
    expect(dayWords('2026-05-01', 'America/Chicago')).toBe('1 May 2026')
  })
  it('draws a finding on its face, never beyond its edge, with its number', () => {
    const at = { shape: 'area', copy: 1, x_mm: 800, y_mm: 100, x2_mm: 1000, y2_mm: 300, size_mm: null }
    const r = report({ findings: [finding(at)] })
    const box = drawing(r).shapes.find(x => x.tag === 'rect')!.at
    const ring = corners(r)
    expect(ring.length).toBeGreaterThan(8)
    for (const [x, y] of ring) {
      expect(x).toBeLessThanOrEqual(Number(box.x) + Number(box.width) + 0.1)
      expect(y).toBeLessThanOrEqual(Number(box.y) + Number(box.height) + 0.1)
    }
    expect(drawing(r).shapes.some(x => x.tag === 'text' && x.text === '1')).toBe(true)
    expect(drawing(r).says).toContain('1 numbered finding')
  })
  it('is drawn without the finding whose face is gone', () => {
    expect(
      corners(report({ faces: [face], findings: [{ ...finding({ shape: 'face', copy: 0 }), faceId: 9 }] })),
    ).toEqual([])
    expect(conditionPaper(report({ faces: [] }), null, 'UTC').parts.some(p => p.kind === 'drawing')).toBe(false)
  })
  it('tells the plan where there is one', () => {
    const plan = {
      ...{ surface: ['oil'], section: null, stages: [{ says: 'Cleaned', steps: ['Wash'] }], gate: 'halos' },
      ...{ readyLikely: '10 May', readySafe: '20 May', cautions: ['Gloves.'] },
    }
    expect(headings(report(), plan)).toContain('What is planned')
    expect(JSON.stringify(conditionPaper(report(), plan, 'UTC'))).toMatch(
      /halos\. Then we ask.*10 May; 20 May at the latest/,
    )
  })
})

describe('a colour card', () => {
  const band = { title: 'Stain', recipe: [{ name: 'Brown', percent: 2 }], laid: [], light: '', approved: null }
  const card = { id: 3, shop: 'S', client: 'C', piece: 'Box', madeOn: 'today', wood: 'Oak' }
  it('shows a band that was not measured as paper, and says so', () => {
    const { parts } = coloursPaper({
      ...card,
      bands: [
        { ...band, colour: null },
        { ...band, colour: '#804020' },
      ],
    })
    const { swatches } = parts.find(p => p.kind === 'swatches')!
    expect(swatches.map(s => [s.colour, s.says])).toEqual([
      ['#f4f2ec', ['Not measured: see the band itself.', 'Brown 2.0 %']],
      ['#804020', ['Brown 2.0 %']],
    ])
  })
})

describe('a delivery note', () => {
  const note = { id: 3, shop: 'S', client: 'C', piece: 'Box', madeOn: 'today', along: [], mind: [], given: null }
  it('has lines to sign on, or who took it, with what was signed on glass', () => {
    const kinds = (given: Parameters<typeof deliveryPaper>[0]['given']) =>
      deliveryPaper({ ...note, given }).parts.map(p => p.kind)
    expect(kinds(null)).toContain('sign')
    const took = { to: 'Runa', on: '1 May', signature: '', part: false }
    expect(kinds(took)).not.toContain('sign')
    expect(kinds({ ...took, signature: 'M1 1 L2 2' })).toContain('drawing')
  })
  it('lists the piece first, and what to mind only where there is something', () => {
    expect(tableOf(deliveryPaper({ ...note, along: [{ name: 'Key', count: 2, says: '' }] }).parts).rows).toEqual([
      ['Box', '1', ''],
      ['Key', '2', ''],
    ])
    expect(listsOf(deliveryPaper(note).parts)).toEqual([])
    expect(listsOf(deliveryPaper({ ...note, mind: ['Cures.'] }).parts)).toEqual(['Cures.'])
  })
})

describe('labels', () => {
  it.each(Object.keys(STOCKS) as (keyof typeof STOCKS)[])('%s: cells stay on the page, apart from each other', name => {
    const stock = STOCKS[name]
    const each = stock.columns * stock.rows
    const cells = Array.from({ length: each + 1 }, (_, i) => cellOf(stock, i, 1))
    expect(cells.map(c => c.page)).toEqual([...Array<number>(each).fill(0), 1])
    for (const { x, y } of cells) {
      expect(x + stock.cell[0]).toBeLessThanOrEqual(stock.page[0] + 0.01)
      expect(y + stock.cell[1]).toBeLessThanOrEqual(stock.page[1] + 0.01)
    }
    expect(new Set(cells.slice(0, each).map(c => `${c.x} ${c.y}`)).size).toBe(each)
  })
  it('begin where the sheet is free', () => {
    expect(cellOf(STOCKS.A4, 0, 24)).toEqual({ page: 0, x: 140, y: 259.5 })
    expect(cellOf(STOCKS.A4, 1, 24).page).toBe(1)
  })
})

describe('storage of what nobody fetches', () => {
  it.each([
    ['2026-05-01', '2026-05-15', 0, 0],
    ['2026-05-01', '2026-05-16', 1, 500],
    ['2026-05-10', '2026-05-01', 0, 0],
    // over the change of the clocks a day is a day
    ['2026-03-20', '2026-04-10', 7, 3500],
  ])('ready on %s, until %s: %i charged', (ready, until, charged_d, minor) => {
    expect(storageOf(ready, until, { freeDays: 14, day_minor: 500 })).toMatchObject({ charged_d, minor })
    expect(storageOf(ready, until, { freeDays: 14, day_minor: 0 })).toMatchObject({ charged_d: 0, minor: 0 })
  })
})

describe('a care sheet', () => {
  it.each([
    ['paste-wax', 'wax'],
    ['varnish-oil', 'renewed'],
    ['raw-linseed', 'renewed'],
    ['hardwax-oil-2c', 'renewed'],
    ['dewaxed-shellac', 'melts'],
    ['nitrocellulose-lacquer', 'melts'],
    ['oil-polyurethane', 'hard'],
    ['urethane-2c', 'hard'],
    ['opaque-colour', 'paint'],
  ])('%s is cared for as %s', (slug, kind) => expect(careKind(materialOf(slug))).toBe(kind))
  it('warns of silicone on all, of spirits where it melts, of rags with oil', () => {
    for (const care of Object.values(CARE)) expect(care.avoid.join(' ')).toMatch(/silicone/)
    expect(CARE.melts.avoid.join(' ')).toMatch(/spirits/)
    expect(CARE.renewed.renew).toMatch(/set themselves on fire/)
  })
  it('is used later and later: touched, laid upon, washed, used hard', () => {
    for (const m of MATERIALS.filter(x => ['film', 'oil', 'wax'].includes(x.role))) {
      const { touched_ms, laidOn_ms, washed_ms, hard_ms } = useFrom(m, 0)
      expect(touched_ms, m.slug).toBeLessThanOrEqual(laidOn_ms)
      expect(laidOn_ms).toBeLessThanOrEqual(washed_ms)
      expect(washed_ms).toBeLessThanOrEqual(hard_ms)
    }
  })
  it('oil in hard use is renewed yearly, else every second year; harder use never later', () => {
    expect([renewAfter_y('renewed', 'hard'), renewAfter_y('renewed', 'daily')]).toEqual([1, 2])
    for (const kind of CARE_KINDS) expect(renewAfter_y(kind, 'hard')).toBeLessThanOrEqual(renewAfter_y(kind, 'display'))
  })
  it('says what must follow, and what must not, where it went home part done', () => {
    const sheet = {
      ...{ id: 3, shop: 'S', client: 'C', piece: 'Box', madeOn: 'today', renewIn: '', partDone: null },
      finishes: [{ faces: '', material: materialOf('varnish-oil'), from: null }],
    }
    const heads = (x: Parameters<typeof carePaper>[0]) =>
      carePaper(x).parts.flatMap(p => (p.kind === 'heading' ? p.text : []))
    expect(heads(sheet)).not.toContain('What must follow')
    const part = { ...sheet, partDone: { next: ['Oil on'], mustNot: ['No wax'], mind: ['Oily rags'] } }
    expect(heads(part).slice(0, 3)).toEqual(['What must follow', 'What must not be done', 'What may hurt'])
    expect(carePaper(part).title).toMatch(/^Part done/)
  })
})

describe('a letter', () => {
  const facts = { shop: 'S', piece: 'Box', who: 'Runa', says: '', link: null }
  it('is one line in its subject, whatever a name holds, and names in braces are not filled twice', () => {
    const house = { subject: 'About {piece}', words: '{client}' }
    expect(letterOf('ask', { ...facts, piece: 'A\r\nBcc: x' }, house).subject).toBe('About A Bcc: x')
    expect(letterOf('ask', { ...facts, who: '{shop}' }, house).text).toContain('\n\n{shop}\n\n')
    expect(unknownFills('{piece} {peace} {}')).toEqual(['{peace}', '{}'])
  })
  it.each(LETTER_KINDS)('%s has usual words that can be filled in', kind => {
    const { subject, words } = USUAL_WORDS[kind]
    expect(unknownFills(subject + words)).toEqual([])
    expect(letterOf(kind, facts, null).subject).not.toMatch(/[{}]/)
  })
})

describe('a paper of each kind', () => {
  const whole = { id: 3, shop: 'S', client: 'C', piece: 'Box', madeOn: 'today' }
  const papers = () => [
    quotationPaper(quotation(), money),
    coloursPaper({ ...whole, wood: 'Oak', bands: [] }),
    deliveryPaper({ ...whole, along: [], mind: [], given: null }),
    carePaper({ ...whole, renewIn: '', partDone: null, finishes: [] }),
  ]
  it('says whose it is, from whom, and of which piece, on each page', () => {
    for (const { title, from, foot, parts } of papers()) {
      expect(title).toMatch(/Box|Chest/)
      expect(from.length).toBe(2)
      expect(foot).toMatch(/piece 3|Quotation/)
      expect(JSON.stringify(parts)).toMatch(/"C"|Client|For C/)
    }
  })
  it('has tables whose rows fit their columns, and columns that fill the width', () => {
    for (const { parts } of papers())
      for (const part of parts)
        if (part.kind === 'table') {
          expect(part.columns.reduce((sum, c) => sum + c.share, 0)).toBeCloseTo(1, 6)
          for (const row of part.rows) expect(row.length).toBe(part.columns.length)
        }
  })
})

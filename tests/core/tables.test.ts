import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { numberIn, readTable, textOf, writeTable, readPots, readRecipes } from '#core/formats'
import { readProducts } from '#core/store'

const names = [
  { key: 'name', heads: ['name'], needed: true },
  { key: 'price', heads: ['price'] },
] as const
describe('a text file', () => {
  const said = 'Bernsteinlack, Möbelöl 20 °C'
  it.each([
    ['UTF-8', Buffer.from(said)],
    ['UTF-8 with its mark', Buffer.from(`\uFEFF${said}`)],
    ['UTF-16, small end first', Buffer.from(`\uFEFF${said}`, 'utf16le')],
    ['UTF-16, large end first', Buffer.from(`\uFEFF${said}`, 'utf16le').swap16()],
    // Latin-1 and Windows-1252 agree on these letters
    ['as a spreadsheet of western Europe saves it', Buffer.from(said, 'latin1')],
  ])('is read in %s', (_, bytes) => {
    expect(textOf(bytes)).toBe(said)
  })
  it('that is none keeps the mark of what cannot be read', () => {
    expect(textOf(Buffer.from([0x50, 0x4b, 3, 4, 0, 255, 254]))).toContain('\uFFFD')
  })
})

describe('a table that somebody else wrote', () => {
  it('is read by its headings, in any order, with what stands behind them passed over', () => {
    const lines = readTable('Price in SEK;other;Name\n12,50;x;Oil\n\n;;"Two\nlines"', names)
    expect(lines).toEqual([
      { line: 2, cells: { name: 'Oil', price: '12,50' } },
      { line: 4, cells: { name: 'Two\nlines', price: '' } },
    ])
  })
  it.each([
    ['', 'the file is empty'],
    ['\n\n', 'the file is empty'],
    ['price\n1', 'no column "name"'],
    ['name,price\n"open,1', 'not closed'],
    ['name,price\nOil, pale,12', 'more cells than columns'],
    ['name\n\uFFFD', 'UTF-8'],
    [`name\n${'a\n'.repeat(6000)}`, 'too many'],
  ])('that cannot be read says where: %j', (text, says) => {
    expect(() => readTable(text, names)).toThrow(says)
  })
  it('never breaks otherwise than with words, whatever it holds', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 200 }), text => {
        try {
          for (const { line } of readTable(`name,price\n${text}`, names)) expect(line).toBeGreaterThan(1)
        } catch (error) {
          expect(error).toBeInstanceOf(RangeError)
        }
      }),
    )
  })
  it('has numbers with a point or a comma, and says what is none', () => {
    expect(['12.5', '12,5', '1 200', '-3', ''].map(numberIn)).toEqual([12.5, 12.5, 1200, -3, null])
    for (const bad of ['1,2,3', '=1+1', 'many', '1e5', '0x10', 'NaN']) expect(() => numberIn(bad)).toThrow('no number')
  })
})

describe('products from a table', () => {
  it('are told by class or its name, with sizes, grit and price', () => {
    const head = 'name,class,grit,supplier,price,sizes,kept at least'
    const { lines, wrong } = readProducts(
      [head, 'Fine oil,varnish oil,,Kajen,320,"250, 1000",2', 'Discs,Abrasive disc,P120,,6,50,10'].join('\r\n'),
    )
    expect(wrong).toEqual([])
    expect(lines[0]).toMatchObject({ class: 'varnish-oil', price: 320, sizes: [250, 1000], least: 2 })
    expect(lines[1]).toMatchObject({ class: 'abrasive-disc', grit: 'P120' })
  })
  it('each wrong line is told with its number, and no other is lost', () => {
    const rows = [
      ['A', 'varnish-oil', '', '1'],
      ['', 'varnish-oil', '', '1'],
      ['B', 'sofa', '', '1'],
      ['C', 'varnish-oil', 'P120', '1'],
      ['D', 'varnish-oil', '', '-1'],
      ['a', 'varnish-oil', '', '1'],
      ['E', 'rag', '', 'dear'],
      ['F', 'rag', '', '2'],
    ]
    const { lines, wrong } = readProducts(writeTable(['name', 'class', 'grit', 'price'], rows))
    expect(lines.map(l => l.name)).toEqual(['A', 'F'])
    expect(wrong.map(x => x.line)).toEqual([3, 4, 5, 6, 7, 8])
    expect(wrong.map(x => x.says).join(' ')).toMatch(/no name.*no class.*grit.*below nought.*twice.*no number/)
  })
})

describe('recipes and pots from a table', () => {
  it('are a line for each thing in them; what they are stands on the first', () => {
    const { lines, wrong } = readRecipes(
      'recipe;name;wood;target;colourant;share in %;coats;wipe;lights\r\n' +
        '7;Seat;Beech;Old seat;Red;2,5;2;light;d65 a\r\n7;Seat;Beech;Old seat;Black;0,4;;;\r\n' +
        '8;Seat;Beech;Other;Red;3;;;\r\n',
    )
    expect(wrong).toEqual([])
    expect(lines).toMatchObject([
      {
        ...{ name: 'Seat', coats: 2, wipe: 'light', lights: ['d65', 'a'], observer: '10' },
        shares: [
          { colourant: 'Red', pct: 2.5 },
          { colourant: 'Black', pct: 0.4 },
        ],
      },
      { name: 'Seat', coats: 1, wipe: 'none', lights: ['d65'], target: 'Other' },
    ])
    const pots = readPots('name,content,poured in g,left in g,mixed\nA,Oil,10,5,2026-01-02 10:00\nB,Oil,5,,1/2/26\n')
    expect(pots.lines).toMatchObject([{ name: 'A', left_g: 5, mixed: '2026-01-02T10:00', contents: [{ g: 10 }] }])
    expect(pots.wrong).toMatchObject([{ line: 3 }])
  })
  it('whatever is in the file, each line is read or told', () => {
    const cell = fc.oneof(fc.string(), fc.constantFrom('-1', '1e9', 'NaN', '=1+1', '', '7', '"', 'Ω'))
    const head = 'name,content,poured,wood,target,colourant,share,left,mixed,density,lasts'
    fc.assert(
      fc.property(fc.array(fc.array(cell, { minLength: 11, maxLength: 11 }), { maxLength: 5 }), rows => {
        const text = [head, ...rows.map(r => r.map(c => `"${c.replaceAll('"', '""')}"`).join(','))].join('\n')
        for (const read of [readRecipes, readPots]) {
          const { lines, wrong } = read(text)
          expect(lines.length + wrong.length).toBeLessThanOrEqual(rows.length)
          for (const x of wrong) expect(x.says.length).toBeGreaterThan(5)
        }
      }),
    )
  })
})

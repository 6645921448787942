import { readFileSync } from 'node:fs'
import fc from 'fast-check'
import { beforeAll, describe, expect, it } from 'vitest'
import { type Label, type Paper, type PaperPart, STOCKS } from '#core/papers'
import type { Shape } from '#core/section'
import { labelsPdf } from '../../server/workers/labels'
import { paperPdf } from '../../server/workers/paper'
import type { Fonts } from '../../server/workers/pdf'

/** Papers set as PDF, whatever stands on them. */
let fonts: Fonts
beforeAll(() => {
  const read = (subset: 'latin' | 'latin-ext', weight: 400 | 700) =>
    new Uint8Array(
      readFileSync(
        `node_modules/@fontsource/schibsted-grotesk/files/schibsted-grotesk-${subset}-${weight}-normal.woff`,
      ),
    )
  fonts = {
    ...{ regular: read('latin', 400), bold: read('latin', 700) },
    ...{ regularExtended: read('latin-ext', 400), boldExtended: read('latin-ext', 700) },
  }
})
const paper = (parts: readonly PaperPart[], title = 'Paper'): Paper => ({ title, from: ['Shop'], parts, foot: 'Foot' })
const isPdf = (data: Uint8Array) => Buffer.from(data.slice(0, 5)).toString() === '%PDF-'
const pages = (data: Uint8Array) =>
  Buffer.from(data)
    .toString('latin1')
    .match(/\/Type \/Page\b/g)!.length

describe('a paper', () => {
  const text = fc.string({ unit: 'grapheme', maxLength: 200 })
  it('takes any text in every part', async () => {
    await fc.assert(
      fc.asyncProperty(text, text, async (a, b) => {
        const parts: PaperPart[] = [
          { kind: 'heading', text: a },
          { kind: 'text', text: b, lead: a, tone: 'stop' },
          { kind: 'text', text: b },
          { kind: 'list', items: [a, b] },
          { kind: 'facts', rows: [[a, b]] },
          { kind: 'table', says: a, columns: [{ head: b, share: 1 }], rows: [[a], [b]], totals: 1 },
          { kind: 'swatches', swatches: [{ colour: '#804020', name: a, says: [b] }] },
          { kind: 'sign', who: [a, b] },
          {
            ...{ kind: 'drawing', says: a, width: 100, height: 50 },
            shapes: [{ tag: 'text', text: b, at: { 'x': 1, 'y': 9, 'font-size': 8 } }],
          },
        ]
        expect(isPdf(await paperPdf({ fonts, paper: paper(parts, a || 'x'), size: 'A4' }))).toBe(true)
      }),
      { numRuns: 25 },
    )
  })
  it('breaks onto further pages, and says how many there are on each', async () => {
    const rows = Array.from({ length: 120 }, (_, i) => [`Row ${i}`])
    const table: PaperPart = { kind: 'table', says: 'Rows', columns: [{ head: 'What', share: 1 }], rows }
    const [a4, letter] = [
      await paperPdf({ fonts, paper: paper([table]), size: 'A4' }),
      await paperPdf({ fonts, paper: paper([table]), size: 'LETTER' }),
    ]
    expect(pages(a4)).toBeGreaterThan(2)
    expect(pages(letter)).toBeGreaterThanOrEqual(pages(a4))
  })
  it('draws shapes as on the screen: paths, rectangles, lines, turned words, colours of the house', async () => {
    const shapes: Shape[] = [
      { tag: 'rect', at: { x: 0, y: 0, width: 40, height: 10, fill: 'var(--color-ink, #1c211f)' } },
      {
        tag: 'path',
        at: { 'd': 'M0 0 L10 10 Z', 'fill': 'none', 'stroke': '#333', 'stroke-dasharray': '6 4' },
      },
      { tag: 'polyline', at: { points: '0,0 5,5 9,1', fill: 'none', stroke: '#333' } },
      {
        tag: 'text',
        text: '10 µm',
        at: { 'transform': 'translate(10 20) rotate(-90)', 'text-anchor': 'middle' },
      },
    ]
    const part: PaperPart = { kind: 'drawing', says: 'Cut', width: 900, height: 400, tallest: 100, shapes }
    const data = await paperPdf({ fonts, paper: paper([part]), size: 'A4' })
    expect(pages(data)).toBe(1)
  })
})

describe('labels', () => {
  const label = (i: number, more: Partial<Label> = {}): Label => ({
    ...{ head: `L${i}`, lines: [{ text: 'one' }, { text: 'two', strong: true }] },
    ...{ address: `https://shop.invalid/${i}`, says: `Opens ${i}` },
    ...more,
  })
  const set = (stock: keyof typeof STOCKS, labels: Label[], from = 1) =>
    labelsPdf({ fonts, labels, stock, from, title: 'Labels' })
  it.each(Object.keys(STOCKS) as (keyof typeof STOCKS)[])('%s: as many pages as its cells ask for', async stock => {
    const each = STOCKS[stock].columns * STOCKS[stock].rows
    const labels = Array.from({ length: 25 }, (_, i) => label(i))
    expect(pages(await set(stock, labels))).toBe(Math.ceil(25 / each))
  })
  it('begin at a free cell on a sheet, and always with the first on a roll', async () => {
    const two = [label(1), label(2)]
    expect([pages(await set('A4', two, 24)), pages(await set('roll', two, 24))]).toEqual([2, 2])
  })
  it('hold any text, and a word that is longer than the label', async () => {
    const long = label(1, { head: 'x'.repeat(80), lines: [{ text: 'Ł'.repeat(300), strong: true }, { text: '' }] })
    expect(isPdf(await set('roll', [long]))).toBe(true)
  })
})

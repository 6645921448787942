import { describe, expect, it, test } from 'vitest'
import {
  explainLadder,
  finestToTry,
  gritName,
  gradesOf,
  gritsFrom,
  gritsRead,
  gritsWritten,
  ladder_P,
  type LadderUse,
  median_um,
  parseGrit,
  P,
} from '#core/abrasives'

/**
 * Ladders that shops use (common practice), each with the work it belongs to. `gaps`: steps whose medians lie more
 * than 1.9 apart (arithmetic on ISO 6344 medians, from memory), and whether something excuses them. `reproduced`: the
 * planner makes the same of its ends.
 */
const LADDERS: {
  work: string
  grits: number[]
  use: LadderUse
  reproduced: boolean
  gaps: [from: number, ratio: number, excused: boolean][]
  spare: number[]
}[] = [
  { work: 'before gel stain on oak', grits: [100, 150, 180], use: {}, reproduced: true, gaps: [], spare: [] },
  {
    work: 'table top for oil, belt, finishing sander, hand',
    grits: [80, 120, 180, 220],
    use: { lastByHand: true },
    reproduced: false,
    gaps: [],
    spare: [180],
  },
  {
    work: 'stripped table before dye and stain',
    grits: [120, 150, 220],
    use: {},
    reproduced: false,
    gaps: [],
    spare: [150],
  },
  { work: 'veneer by hand', grits: [120, 220], use: { lastByHand: true }, reproduced: true, gaps: [], spare: [] },
  {
    work: 'flattened solid top for a thick oil varnish',
    grits: [60, 120, 180],
    use: { lastByHand: true },
    reproduced: false,
    gaps: [[60, 2.15, true]],
    spare: [],
  },
  {
    work: 'two-part hardwax oil on coarse-pored oak',
    grits: [80, 180],
    use: { oilOnOpenPores: true },
    reproduced: false,
    gaps: [[80, 2.45, true]],
    spare: [],
  },
  {
    work: 'rustic, waterborne stain',
    grits: [80, 120],
    use: { rustic: true },
    reproduced: true,
    gaps: [],
    spare: [],
  },
  {
    work: 'thick film off a solid top, aggressive',
    grits: [40, 120, 150],
    use: {},
    reproduced: false,
    gaps: [[40, 3.4, false]],
    spare: [],
  },
  {
    work: 'small painted trim, on sealer',
    grits: [60, 240],
    use: { opaque: true },
    reproduced: false,
    gaps: [[60, 4.6, true]],
    spare: [],
  },
]

describe.each(LADDERS)('$work: $grits (common practice)', ({ grits, use, reproduced, gaps, spare }) => {
  const rungs = explainLadder(grits.map(P), use)
  it('gaps are named with their ratio, what fills them, and what excuses them', () => {
    const found = rungs.filter(r => r.gap)
    expect(found.map(r => [Number(r.grit.grade), Math.round(r.ratio! * 100) / 100, r.excuse !== null])).toEqual(
      gaps.map(([from, ratio, excused]) => [grits[grits.indexOf(from) + 1], expect.closeTo(ratio, 1), excused]),
    )
    for (const r of found) expect(median_um(r.fill!)).toBeGreaterThan(median_um(r.grit))
  })
  it('rungs that could be left out are named', () =>
    expect(rungs.filter(r => r.spare).map(r => Number(r.grit.grade))).toEqual(spare))
  it("the planner's own ladder between the same ends never skips", () => {
    const planned = ladder_P(grits[0]!, grits.at(-1)!)
    expect(explainLadder(planned, {}).filter(r => r.gap)).toEqual([])
    expect(JSON.stringify(planned.map(g => Number(g.grade))) === JSON.stringify(grits)).toBe(reproduced)
  })
})

describe('grits as they are typed', () => {
  test.each([
    ['P180', 'P180'],
    ['p 220', 'P220'],
    ['180', 'P180'],
    ['CAMI 600', 'CAMI 600'],
    ['cami320', 'CAMI 320'],
    ['15.3 µm', 'P1200'],
    ['35um', 'P400'],
  ])('%s is %s', (typed, name) => expect(gritName(parseGrit(typed))).toBe(name))
  test.each(['600', '1200', 'P190', 'fine', '', '5000 µm'])('"%s" is refused with a word what to type', typed =>
    expect(() => parseGrit(typed)).toThrow(/P|µm|scale|grit/i),
  )
  it('no bare number above 220: P1200 and CAMI 600 are about the same paper (common practice)', () =>
    expect(() => parseGrit('600')).toThrow(/P600 or CAMI 600/))
  it('wool by noughts, pads by colour, foam by number, powders by name: about, never exactly (common practice)', () => {
    const typed = ['0000', 'wool 00', 'grey pad', 'pad maroon', 'foam 3000', 'pumice']
    expect(typed.map(t => gritName(parseGrit(t)))).toEqual([
      ...['wool 0000', 'wool 00', 'grey pad', 'maroon pad', 'foam 3000', 'pumice'],
    ])
    expect(() => parseGrit('sandpaper')).toThrow(/with its scale/)
  })
  test.each(['wool', 'pad', 'foam', 'powder', 'P', 'CAMI'] as const)('every grade of %s is read by its name', scale => {
    const grits = gradesOf(scale).map(grade => ({ scale, grade }))
    expect(gritsRead(gritsWritten(grits))).toEqual(grits)
  })
  it('numbers that were kept before there were scales are of the P scale', () =>
    expect(gritsRead('120,180')).toEqual([P(120), P(180)]))
})

describe('the finest that might work is tried first (common practice)', () => {
  it('well stripped, 50 to 100 µm to take: P180 first, then coarser', () =>
    expect(finestToTry([100, 120, 150, 180].map(P), 75).map(g => Number(g.grade))).toEqual([180, 150, 120, 100]))
  it('a whole film sanded off, 150 to 300 µm: only what is coarse enough', () =>
    expect(finestToTry([80, 120, 180].map(P), 225).map(g => Number(g.grade))).toEqual([80]))
  it('from what worked the ladder goes on to its stop', () =>
    expect(gritsFrom([100, 150, 180].map(P), P(150))).toEqual([150, 180].map(P)))
})

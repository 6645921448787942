import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  type Answers,
  choicesOf,
  MOST_SUMS,
  overruns,
  overrunSaid,
  type QuestionShown,
  standingOf,
  sumOfReplies,
  takes,
  withName,
  withoutName,
} from '#core/approval'
import { STEP_KINDS, whereabouts } from '#core/acts'

const item = (no: number, priced: boolean, options: number) => ({
  ...{ no, kind: 'work' as const, title: '', says: '', why: [], gate: null, priced },
  options: Array.from({ length: options }, () => ({
    says: '',
    lines: [],
    does: [],
    steps: [],
    stands: null,
    picture: '',
  })),
})
const sum = (picks: (number | null)[], likely_minor: number) => ({
  ...{ picks, likely_minor, worst_minor: likely_minor, readyLikely: '2026-12-01', readySafe: '2026-12-08' },
})

describe('every way to choose', () => {
  it('is each option of each item once, or none where it may be missed', () => {
    const sizes = fc.array(fc.record({ options: fc.integer({ min: 1, max: 3 }), mayMiss: fc.boolean() }), {
      maxLength: 4,
    })
    fc.assert(
      fc.property(sizes, items => {
        const all = choicesOf(items)
        const count = items.reduce((n, i) => n * (i.options + Number(i.mayMiss)), 1)
        expect(all === null).toBe(count > MOST_SUMS)
        if (all) expect(new Set(all.map(String)).size).toBe(count)
        for (const picks of all ?? [])
          picks.forEach((p, i) => {
            if (p === null) expect(items[i]!.mayMiss).toBe(true)
            else expect(p).toBeLessThan(items[i]!.options)
          })
      }),
    )
  })
})

describe('what replies cost', () => {
  const shown = {
    items: [item(1, true, 2), item(2, true, 1), item(3, false, 2)],
    sums: [sum([0, null, null], 100), sum([1, null, null], 150), sum([0, 0, null], 130), sum([1, 0, null], 180)],
  } as unknown as QuestionShown
  const replies = (...all: [number, number | 'no' | 'talk'][]): Answers => new Map(all)
  it('follows what is chosen; what has no price moves nothing', () => {
    expect(sumOfReplies(shown, replies([1, 1], [2, 0], [3, 1]))?.likely_minor).toBe(180)
    expect(sumOfReplies(shown, replies([1, 0], [2, 'no']))?.likely_minor).toBe(100)
    expect(sumOfReplies(shown, replies([1, 0], [2, 'talk'], [3, 'no']))?.likely_minor).toBe(100)
  })
  it('is none while the work itself is not agreed to', () => {
    expect(sumOfReplies(shown, replies([1, 'no'], [2, 0]))).toBeNull()
    expect(sumOfReplies(shown, replies([2, 0]))).toBeNull()
  })
  it('takes the numbers of options, no, and "let us talk"', () => {
    expect([0, 1, 2, -1, 0.5, NaN].map(r => takes(shown.items[0]!, r))).toEqual([
      true,
      true,
      false,
      false,
      false,
      false,
    ])
    const pull = { ...shown.items[0]!, kind: 'hardware' as const }
    expect([takes(pull, 'no'), takes(pull, 'talk'), takes(pull, 1)]).toEqual([false, true, true])
    expect(takes(shown.items[1]!, 'talk') && takes(shown.items[1]!, 'no')).toBe(true)
  })
})

describe('where a question stands', () => {
  it.each([
    [['open', 'yes'], 'open'],
    [['yes', 'no', 'talk'], 'yes'],
    [['no', 'talk', 'overtaken'], 'talk'],
    [['no', 'overtaken'], 'no'],
    [['overtaken', 'overtaken'], 'superseded'],
  ] as const)('%j is %s', (items, standing) => {
    expect(standingOf(items)).toBe(standing)
  })
})

describe("a client's name", () => {
  it('is taken out of words that are kept, and filled in again', () => {
    const kept = withoutName('Dear Alva Brink, hello Alva Brink!', 'Alva Brink')
    expect(kept).not.toContain('Alva')
    expect(withName(kept, 'A. Brink')).toBe('Dear A. Brink, hello A. Brink!')
    expect(withoutName('An oak box', 'A')).toBe('An oak box')
  })
})

describe('where a piece is', () => {
  const at = { doing: [], drying: false, begun: true, next: null, nextDay: null } as const
  it.each([
    [{ ...at, doing: ['sand'] as const }, 'It is being sanded.'],
    [
      { ...at, drying: true, next: 'coat', nextDay: 'Tuesday 1 December' } as const,
      'Drying; then the next coat, Tuesday 1 December.',
    ],
    [{ ...at, next: 'stain' } as const, 'Next: colour.'],
    [{ ...at, begun: false, next: 'approval' } as const, 'We wait for your word.'],
    [
      { ...at, begun: false, next: 'wash', nextDay: 'Monday 7 December' } as const,
      'It waits for its turn. First: it is cleaned, Monday 7 December.',
    ],
    [at, 'All its work is done.'],
  ])('%j', (where, says) => {
    expect(whereabouts(where)).toBe(says)
  })
  it('knows a word for every kind of step', () => {
    for (const kind of STEP_KINDS.filter(k => k !== 'other' && k !== 'put-back' && k !== 'finish-up'))
      expect(whereabouts({ ...at, doing: [kind] }), kind).not.toContain('put together')
  })
})

describe('work that ran over', () => {
  const stage = (says: string, planned_min: number, worked_min: number) => ({ says, planned_min, worked_min })
  it('is told by its longest stages, and not for minutes', () => {
    const over = overruns([
      stage('Cleaned', 60, 74),
      stage('Sanded', 60, 195),
      stage('Stripped', 100, 160),
      stage('Mended', 300, 20),
    ])
    expect(overrunSaid(over)).toBe('Took longer than planned: Sanded, 2 h 15 min; Stripped, 1 h.')
    expect(overrunSaid(overruns([stage('Cleaned', 60, 74)]))).toBe('')
    expect(overruns(Array.from({ length: 9 }, (_, i) => stage(`s${i}`, 0, 60 + i)))).toHaveLength(3)
  })
})

import fc from 'fast-check'
import { describe, expect, it, test } from 'vitest'
import {
  entropy_bits,
  identify,
  informationGain_bits,
  likelihood,
  MOST_CERTAIN,
  nextTests,
  type Observation,
  posterior,
  PRIORS,
  prior,
  reasonsFor,
  TESTS,
} from '#core/identify'
import { FINISH_CLASSES, type FinishClass, PERIODS, type Period } from '#core/piece'

const seen = (...pairs: [string, string][]): Observation[] => pairs.map(([test, result]) => ({ test, result }))

/**
 * Conclusions written down from the trade before the table was asked: what a restorer would say after these readings.
 */
const cases: [string, Period, Observation[], FinishClass][] = [
  ['sticky at once under alcohol, before 1925', '1850-1925', seen(['alcohol-drop', 'sticky']), 'shellac'],
  [
    'orange under the lamp and powder under the blade',
    '1850-1925',
    seen(['uv-lamp', 'orange'], ['scrape', 'powder']),
    'shellac',
  ],
  [
    'lacquer thinner dissolves, alcohol does nothing, 1925–1960',
    '1925-1960',
    seen(['lacquer-thinner-drop', 'dissolves'], ['alcohol-drop', 'nothing']),
    'nitrocellulose-lacquer',
  ],
  ['xylene makes it gum, after 1990', 'after-1990', seen(['xylene-drop', 'gummy'], ['scrape', 'curls']), 'waterborne'],
  [
    'curls like plastic, thinner hardly touches it, after 1960',
    '1960-1990',
    seen(['scrape', 'curls'], ['look', 'thick, plastic'], ['lacquer-thinner-drop', 'nothing'], ['thumbnail', 'dents']),
    'oil-polyurethane',
  ],
  [
    'thinner wrinkles it, milky under the lamp, old',
    '1850-1925',
    seen(['lacquer-thinner-drop', 'wrinkles'], ['uv-lamp', 'milky, greenish']),
    'oil-varnish',
  ],
  [
    'no film, water soaks in, wood at once',
    '1850-1925',
    seen(['look', 'no film'], ['water-drop', 'soaks in'], ['scrape', 'wood at once']),
    'none',
  ],
  [
    'comes off with white spirit, waxy under the blade',
    'before-1850',
    seen(['white-spirit-rub', 'comes off'], ['scrape', 'waxy']),
    'wax',
  ],
  [
    'opaque, thinner wrinkles it',
    '1925-1960',
    seen(['look', 'opaque'], ['lacquer-thinner-drop', 'wrinkles']),
    'oil-paint',
  ],
  [
    'no film, hardly drinks, nothing dissolves, old',
    'before-1850',
    seen(
      ['look', 'no film'],
      ['water-drop', 'nothing'],
      ['scrape', 'wood at once'],
      ['white-spirit-rub', 'nothing comes off'],
    ),
    'oil',
  ],
]

describe('conclusions', () => {
  test.each(cases)('%s', (_what, period, readings, finish) =>
    expect(identify(prior(period, 'no'), readings).finish).toBe(finish),
  )
  it('is less sure when the piece may have been refinished', () => {
    const readings = seen(['alcohol-drop', 'sticky'])
    expect(identify(prior('1850-1925', 'unknown'), readings).certainty).toBeLessThan(
      identify(prior('1850-1925', 'no'), readings).certainty + 1e-9,
    )
  })
  it('never shows more than 95 %, whatever was read', () => {
    const any = fc.constantFrom(...TESTS.flatMap(t => Object.keys(t.results).map(result => ({ test: t.slug, result }))))
    fc.assert(
      fc.property(fc.constantFrom(...PERIODS), fc.array(any, { maxLength: 9 }), (period, readings) => {
        expect(identify(prior(period, 'yes'), readings).certainty).toBeLessThanOrEqual(MOST_CERTAIN)
      }),
    )
  })
  it('does not care in which order the tests were done', () => {
    const readings = seen(['alcohol-drop', 'softens'], ['scrape', 'curls'], ['uv-lamp', 'dull'])
    const [a, b] = [
      posterior(prior('after-1990', 'no'), readings),
      posterior(prior('after-1990', 'no'), [...readings].reverse()),
    ]
    a.forEach((p, k) => expect(p).toBeCloseTo(b[k]!, 12))
  })
  it('says for each reading how much it spoke for the first guess', () => {
    const readings = seen(['alcohol-drop', 'sticky'], ['thumbnail', 'no dent'])
    const reasons = reasonsFor(identify(prior('1850-1925', 'no'), readings), readings)
    expect(reasons[0]!.ratio).toBeGreaterThan(5)
    expect(reasons.map(r => r.test)).toEqual(['alcohol-drop', 'thumbnail'])
  })
  it('refuses a test or result that it does not know', () => {
    expect(() => likelihood('taste', 'sweet')).toThrow(RangeError)
    expect(() => likelihood('scrape', 'sings')).toThrow(/no result/)
  })
})

describe('the next test', () => {
  it('tells something or nothing, never less', () => {
    for (const period of PERIODS)
      for (const t of TESTS) expect(informationGain_bits(prior(period, 'unknown'), t)).toBeGreaterThanOrEqual(-1e-12)
  })
  it('cannot tell more than is unknown', () => {
    const belief = prior('unknown', 'unknown')
    for (const t of TESTS) expect(informationGain_bits(belief, t)).toBeLessThanOrEqual(entropy_bits(belief))
  })
  it('takes the milder of two that tell alike', () => {
    const start = prior('1925-1960', 'no')
    const scores = new Map(nextTests(start, []).map(n => [n.test.slug, n]))
    const [mild, harsh] = [scores.get('look')!, scores.get('lacquer-thinner-drop')!]
    expect(mild.score / mild.gain_bits).toBeGreaterThan(harsh.score / harsh.gain_bits)
  })
  it('puts a solvent that wants cartridges behind a mild one that tells alike', () => {
    const share = (slug: string) => {
      const n = nextTests(prior('1960-1990', 'no'), []).find(x => x.test.slug === slug)!
      return n.score / n.gain_bits
    }
    expect(share('xylene-drop')).toBeLessThan(share('alcohol-drop'))
  })
  it('asks each test once and runs out', () =>
    expect(
      nextTests(
        prior('unknown', 'no'),
        TESTS.map(t => ({ test: t.slug, result: Object.keys(t.results)[0]! })),
      ),
    ).toEqual([]))
  it('leaves less unknown, on average, after the advised test than after the last advised', () => {
    const start = prior('1960-1990', 'unknown')
    const order = nextTests(start, [])
    expect(order[0]!.gain_bits).toBeGreaterThan(order.at(-1)!.gain_bits)
  })
})

describe('the tables', () => {
  it('have one figure for each class', () => {
    for (const t of TESTS)
      for (const [result, row] of Object.entries(t.results))
        expect(row, `${t.slug} ${result}`).toHaveLength(FINISH_CLASSES.length)
    for (const row of Object.values(PRIORS)) expect(row.reduce((a, b) => a + b)).toBeCloseTo(1, 2)
  })
  it('never call anything impossible', () => {
    for (const t of TESTS)
      for (const result of Object.keys(t.results))
        for (const p of likelihood(t.slug, result)) expect(p).toBeGreaterThan(0)
    for (const period of PERIODS) for (const p of prior(period, 'no')) expect(p).toBeGreaterThan(0)
  })
  it('know no nitrocellulose before the 1920s and no waterborne before the 1990s, unless refinished', () => {
    const of = (period: Period, refinished: 'yes' | 'no', finish: FinishClass) =>
      prior(period, refinished)[FINISH_CLASSES.indexOf(finish)]!
    expect(of('1850-1925', 'no', 'nitrocellulose-lacquer')).toBeLessThan(0.01)
    expect(of('1850-1925', 'yes', 'nitrocellulose-lacquer')).toBeGreaterThan(0.1)
    expect(of('1960-1990', 'no', 'waterborne')).toBeLessThan(0.01)
  })
})

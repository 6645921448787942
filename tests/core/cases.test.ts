import { describe, expect, it } from 'vitest'
import { type Examined, examine } from '#core/examine'
import type { LayerReading } from '#core/identify'
import type { Face, Finding, FinishClass, Period } from '#core/piece'
import { face, facts, finding } from '../facts'

/**
 * Ten pieces made up from the handbook (3.1–3.5, 7, 11.2, 11.3), with what a careful restorer would conclude. Written
 * before the code ran. Figures of wood and water: Wood Handbook, from memory. Finishes, hazards and questions: common
 * practice.
 */
interface Case {
  piece: string
  period: Period
  refinished?: 'yes' | 'no' | 'unknown'
  faces: Partial<Face>[]
  findings?: Finding[]
  lead?: 'yes' | 'no' | 'unknown'
  evidence?: Record<string, 'yes' | 'no'>
  readings?: [test: string, result: string, layer?: number, group?: string][]
  /** answers of the walk: question, or question|part */
  answers?: Record<string, string[]>
  moisture?: { reading_pct: number; temperature_C: number; rh: number; thickness_mm?: number }
  room?: [dryRh: number, humidRh: number]
  expect: {
    finish?: [finish: FinishClass, verdict: 'sure' | 'test-again' | 'contradictory', layer?: number, group?: string][]
    /** hazards that stand in the way, and what they forbid */
    hazards: Record<string, string[]>
    asks?: string[]
    asksNot?: string[]
    verdicts?: string[]
    verdictsNot?: string[]
    moisture?: 'ready' | 'wait'
    filler?: 'rigid' | 'stretching'
    swing_mm?: number
  }
}

const CASES: Case[] = [
  {
    piece: 'Oak map table of the thirties, never refinished, in a heated room',
    period: '1925-1960',
    refinished: 'no',
    faces: [{ part: 'top', species: 'oak' }],
    lead: 'no',
    readings: [
      ['lacquer-thinner-drop', 'dissolves'],
      ['alcohol-drop', 'nothing'],
      ['scrape', 'powder'],
    ],
    moisture: { reading_pct: 9.5, temperature_C: 21.1, rh: 0.5 },
    expect: {
      finish: [['nitrocellulose-lacquer', 'sure']],
      hazards: {},
      asks: ['raking-light', 'touch', 'water-sign', 'joints'],
      asksNot: ['veneer-edge', 'mirror-back', 'board-lining'],
      moisture: 'ready',
    },
  },
  {
    piece: 'Painted pine cupboard, age not known, lead not tested',
    period: 'unknown',
    faces: [{ part: 'doors', species: 'pine' }],
    lead: 'unknown',
    findings: [finding('old-paint', 4)],
    readings: [
      ['look', 'opaque'],
      ['lacquer-thinner-drop', 'wrinkles'],
    ],
    expect: {
      finish: [['oil-paint', 'sure']],
      hazards: { lead: ['dry-sanding', 'heat-gun'] },
      asks: ['layers-at-chip'],
      verdicts: ['lead'],
    },
  },
  {
    piece: 'Mahogany chest before 1850, veneered, thickness not measured',
    period: 'before-1850',
    refinished: 'no',
    faces: [{ part: 'top', species: 'mahogany', substrate: 'veneer', veneer_mm: null }],
    lead: 'no',
    readings: [
      ['alcohol-drop', 'sticky'],
      ['uv-lamp', 'orange'],
    ],
    expect: {
      finish: [['shellac', 'sure']],
      hazards: { cites: ['sale-across-borders'] },
      asks: ['veneer-edge', 'ivory-inlay'],
      verdicts: ['veneer-estimated'],
    },
  },
  {
    piece: 'Teak sideboard of the sixties, oiled',
    period: '1960-1990',
    refinished: 'no',
    faces: [{ part: 'top', species: 'teak' }],
    lead: 'no',
    readings: [
      ['look', 'no film'],
      ['scrape', 'wood at once'],
      ['water-drop', 'nothing'],
      ['white-spirit-rub', 'nothing comes off'],
    ],
    expect: { finish: [['oil', 'sure']], hazards: {}, asksNot: ['layers-at-chip', 'ivory-inlay'] },
  },
  {
    piece: 'Kitchen table after 1990, blanched film, water beads while washing',
    period: 'after-1990',
    refinished: 'no',
    faces: [{ part: 'top', species: 'beech' }],
    lead: 'no',
    readings: [
      ['xylene-drop', 'gummy'],
      ['scrape', 'curls'],
    ],
    answers: { 'water-sign': ['beads'] },
    expect: { finish: [['waterborne', 'sure']], hazards: {}, asks: ['polish-used'], verdicts: ['contaminated'] },
  },
  {
    piece: 'Chair of about 1900 with a plastic coat over the old polish',
    period: '1850-1925',
    refinished: 'yes',
    faces: [{ part: 'frame', species: 'beech', shape: 'turned' }],
    lead: 'no',
    readings: [
      ['look', 'thick, plastic', 1],
      ['scrape', 'curls', 1],
      ['lacquer-thinner-drop', 'nothing', 1],
      ['xylene-drop', 'nothing', 1],
      ['alcohol-drop', 'sticky', 2],
      ['scrape', 'powder', 2],
    ],
    answers: { 'layers-at-chip|frame': ['several'] },
    expect: {
      finish: [
        ['oil-polyurethane', 'test-again', 1],
        ['shellac', 'sure', 2],
      ],
      hazards: {},
      asks: ['lowest-layer'],
    },
  },
  {
    piece: 'Sewing box: alcohol makes it sticky, yet it curls and nothing else touches it',
    period: '1960-1990',
    refinished: 'unknown',
    faces: [{ part: 'lid', species: 'birch' }],
    lead: 'no',
    readings: [
      ['alcohol-drop', 'sticky'],
      ['scrape', 'curls'],
      ['look', 'thick, plastic'],
      ['lacquer-thinner-drop', 'nothing'],
    ],
    expect: { finish: [['oil-polyurethane', 'contradictory']], hazards: {}, verdicts: ['contradictory'] },
  },
  {
    piece: 'Elm chest from an attic, 17 %, musty',
    period: '1850-1925',
    faces: [{ part: 'lid', species: 'elm' }],
    lead: 'no',
    answers: { 'stood-where': ['attic'], 'smell': ['musty'] },
    moisture: { reading_pct: 17, temperature_C: 21.1, rh: 0.5 },
    expect: { hazards: { mould: ['dry-brushing'] }, asks: ['meter'], moisture: 'wait', verdicts: ['too-wet', 'mould'] },
  },
  {
    piece: 'Collection case with white powder in its corners and a mirror in the door',
    period: '1850-1925',
    faces: [{ part: 'case', species: 'walnut' }],
    lead: 'no',
    answers: { insides: ['powder', 'mirror'] },
    expect: {
      hazards: { 'pesticide': ['dry-sanding', 'dry-brushing'], 'mercury-mirror': ['opening'] },
      asks: ['mirror-back'],
      verdicts: ['pesticide', 'mercury-mirror'],
    },
  },
  {
    piece: 'Walnut top on beech legs, crack in a white oak panel',
    period: '1925-1960',
    refinished: 'no',
    lead: 'no',
    room: [0.3, 0.65],
    faces: [
      { id: 1, part: 'top', species: 'walnut' },
      { id: 2, part: 'legs', species: 'beech' },
      { id: 3, part: 'panel', species: 'white-oak', length_mm: 900, width_mm: 400 },
    ],
    findings: [
      {
        ...finding('crack', 3, 3),
        place: { shape: 'line', copy: 1, x_mm: 100, y_mm: 200, x2_mm: 700, y2_mm: 200, size_mm: 2 },
      },
    ],
    expect: { hazards: {}, verdicts: ['one-stain-two-colours', 'crack-moves'], filler: 'stretching', swing_mm: 8.5 },
  },
]

const run = (c: Case): Examined =>
  examine({
    facts: facts({
      period: c.period,
      refinished: c.refinished ?? 'unknown',
      lead: c.lead ?? 'unknown',
      faces: c.faces.map((f, i) => face({ id: i + 1, ...f })),
      findings: c.findings ?? [],
      found: null,
      finishes: [],
    }),
    readings: (c.readings ?? []).map(([test, result, layer = 1, group = 'A']): LayerReading => ({
      test,
      result,
      layer,
      group,
    })),
    answers: Object.entries(c.answers ?? {}).map(([key, options]) => ({ key, options })),
    evidence: c.evidence ?? {},
    moisture: c.moisture
      ? [
          {
            faceId: 1,
            reading_pct: c.moisture.reading_pct,
            at_ms: 0,
            thickness_mm: c.moisture.thickness_mm ?? 20,
            air: null,
          },
        ]
      : [],
    air: c.moisture ? { temperature_C: c.moisture.temperature_C, rh: c.moisture.rh } : null,
    room: c.room ? { dryRh: c.room[0], humidRh: c.room[1], temperature_C: 21.1 } : null,
  })

describe.each(CASES)('$piece', c => {
  const found = run(c)
  it('finish', () => {
    for (const [finish, verdict, layer = 1, group = 'A'] of c.expect.finish ?? []) {
      const got = found.finishes.find(f => f.group === group)!.layers.find(l => l.layer === layer)!
      expect([got.finish, got.verdict]).toEqual([finish, verdict])
    }
  })
  it('hazards', () => {
    expect(
      Object.fromEntries(found.hazards.filter(h => h.standing !== 'cleared').map(h => [h.slug, h.forbids])),
    ).toEqual(c.expect.hazards)
  })
  it('questions', () => {
    const asked = new Set(found.walk.questions.map(q => q.question))
    for (const slug of c.expect.asks ?? []) expect(asked, slug).toContain(slug)
    for (const slug of c.expect.asksNot ?? []) expect(asked, slug).not.toContain(slug)
  })
  it('verdicts and moisture', () => {
    const slugs = found.verdicts.map(v => v.slug)
    for (const slug of c.expect.verdicts ?? []) expect(slugs).toContain(slug)
    for (const slug of c.expect.verdictsNot ?? []) expect(slugs).not.toContain(slug)
    if (c.expect.moisture) expect(found.moisture[0]!.verdict).toBe(c.expect.moisture)
    if (c.expect.moisture === 'wait') expect(found.moisture[0]!.likely_d).toBeGreaterThan(3)
    if (c.expect.filler) expect(found.cracks[0]!.filler).toBe(c.expect.filler)
    if (c.expect.swing_mm) expect(Math.abs(found.cracks[0]!.swing_mm - c.expect.swing_mm)).toBeLessThan(0.4)
  })
})

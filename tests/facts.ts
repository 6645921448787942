/** A made-up piece for tests: one change at a time is made to it. */
import { choiceOfPicks, type PickedWay } from '#core/build'
import type { Context } from '#core/context'
import type { Face, Facts, Finding } from '#core/piece'
import type { Hours } from '#core/timetable'
import { UNPLACED } from '../core/piece'

export const face = (more: Partial<Face> = {}): Face => ({
  id: 1,
  part: 'lid',
  name: 'outside',
  scope: 'refinish',
  rank: 'show',
  shape: 'flat',
  orientation: 'horizontal',
  length_mm: 1600,
  width_mm: 500,
  copies: 1,
  area_m2: 0.8,
  species: 'oak',
  substrate: 'solid',
  veneer_mm: null,
  film_um: null,
  finishGroup: 'A',
  ...more,
})
export const facts = (more: Partial<Facts> = {}): Facts => ({
  use: 'daily',
  tone: 'same',
  sheen: 'satin',
  age: 'keep',
  period: '1960-1990',
  refinished: 'no',
  keepPatina: false,
  rustic: false,
  lead: 'no',
  bans: [],
  wet: [],
  undecided: [],
  sample: 'none',
  movingCracks: [],
  marks: [],
  pace: { stripper: null, sanding: null },
  finishes: [],
  found: { finish: 'oil-varnish', certainty: 0.9 },
  faces: [face()],
  findings: [],
  ...more,
})
/** What is picked for a piece, and for some of its faces. */
export type Picked = PickedWay & { own?: readonly PickedWay[] }
/** The build-ups of some picks on a piece. */
export const built = (context: Context, { own = [], ...main }: Picked) =>
  choiceOfPicks(
    context,
    main,
    own.map(way => ({ ...main, ...way })),
  )
export const choice = (more: Partial<Picked> = {}): Picked => ({
  route: 'strip-chemical',
  finish: 'waterborne-polyurethane',
  colour: 'none',
  conditioner: 'auto',
  ...more,
})
export const finding = (kind: Finding['kind'], grade = 3, faceId = 1): Finding => ({
  faceId,
  kind,
  grade,
  wish: 'mend',
  place: UNPLACED,
})
export const hours: Hours = {
  zone: 'Europe/Stockholm',
  closures: ['2026-12-25'],
  week: { 1: [[450, 1020]], 2: [[450, 1020]], 3: [[450, 1020]], 4: [[450, 1020]], 5: [[450, 900]] },
}
/** Local time in Stockholm in winter (UTC+1). */
export const at = (local: string): number => Date.parse(`${local}:00+01:00`)

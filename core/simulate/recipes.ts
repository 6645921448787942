/**
 * Kinds of job that a made-up shop lives by. Minutes are `fixed + perM2 × area`; waits and windows are those of usual
 * labels (common practice), the shares and the minutes are made up.
 */
import type { Base } from '../materials'
import type { Makes, Skill } from '../schedule'

/** What dries, with the time of its label. */
export interface Film {
  base: Base
  /** its class, under which a shop learns */
  of: string
  label_min: number
}
export interface Operation {
  name: string
  fixed_min: number
  perM2_min: number
  skill: Skill | null
  makes: Makes
  /** not laid aside over a closing */
  whole: boolean
  /** the next may begin when this is dry */
  dries: Film | null
  /** from its end, by the clock, before the next may begin: dwelling, soaking in */
  rests_min: number
  /** from its end: the next must begin before; null: nothing presses */
  closes_min: number | null
}
export interface Recipe {
  name: string
  /** share of all jobs */
  share: number
  operations: readonly Operation[]
}

const HOUR = 60
const FILMS = {
  wash: { base: 'water', of: 'washed wood', label_min: 24 * HOUR },
  oil: { base: 'oil', of: 'varnish oil', label_min: 24 * HOUR },
  stain: { base: 'oil', of: 'oil stain', label_min: 24 * HOUR },
  water: { base: 'water', of: 'waterborne polyurethane', label_min: 3 * HOUR },
  lacquer: { base: 'lacquer', of: 'lacquer', label_min: HOUR },
  shellac: { base: 'alcohol', of: 'shellac', label_min: 2 * HOUR },
  twoPart: { base: 'lacquer', of: 'two-part urethane', label_min: 5 * HOUR },
  glue: { base: 'water', of: 'glue', label_min: 12 * HOUR },
} as const satisfies Record<string, Film>

const plain = { skill: null, makes: 'other', whole: false, dries: null, rests_min: 0, closes_min: null } as const
const op = (name: string, fixed_min: number, perM2_min: number, more: Partial<Operation> = {}): Operation => ({
  ...{ name, fixed_min, perM2_min },
  ...plain,
  ...more,
})
const sand = (name = 'sand', fixed = 20, perM2 = 25) => op(name, fixed, perM2, { makes: 'dust' })
const coat = (film: Film, more: Partial<Operation> = {}) =>
  op('coat', 10, 7, { makes: 'wet', skill: 'spray', whole: true, dries: film, ...more })
/** On, soak in, and all of it off again before it gets sticky. */
const oiled = [
  op('oil on', 10, 8, { makes: 'wet', whole: true, rests_min: 15, closes_min: 45 }),
  op('wipe off', 10, 6, { makes: 'wet', whole: true, dries: FILMS.oil }),
]
const stripped = [
  op('stripper on', 15, 10, { skill: 'strip', whole: true, rests_min: 15, closes_min: 60 }),
  op('scrape', 20, 20, { skill: 'strip', whole: true }),
  op('wash', 10, 5, { makes: 'wet', dries: FILMS.wash }),
]
const scuffed = (film: Film) => [coat(film), sand('scuff', 5, 5), coat(film), sand('scuff', 5, 5), coat(film)]
const fitted = op('fit together', 25, 5)

export const RECIPES: readonly Recipe[] = [
  { name: 'strip and oil', share: 0.3, operations: [...stripped, sand(), ...oiled, ...oiled, ...oiled, fitted] },
  {
    name: 'stain and waterborne film',
    share: 0.25,
    operations: [
      ...[...stripped, sand()],
      op('condition', 10, 5, { makes: 'wet', rests_min: 15, closes_min: 120 }),
      op('stain', 15, 8, { makes: 'wet', skill: 'colour', whole: true, dries: FILMS.stain }),
      ...[...scuffed(FILMS.water), fitted],
    ],
  },
  {
    name: 'lacquer',
    share: 0.15,
    operations: [
      ...[...stripped, sand(), ...scuffed(FILMS.lacquer)],
      op('rub out', 20, 20, { skill: 'polish', rests_min: 0 }),
      fitted,
    ],
  },
  {
    name: 'repair and shellac',
    share: 0.2,
    operations: [
      op('glue', 25, 5, { skill: 'repair', whole: true, makes: 'wet', dries: FILMS.glue }),
      sand('level', 15, 10),
      ...[1, 2, 3].map(() => coat(FILMS.shellac, { skill: 'polish' })),
      fitted,
    ],
  },
  {
    name: 'two-part film',
    share: 0.1,
    operations: [
      sand(),
      // the next coat bonds by itself only within a day
      ...[1, 2].map(() => coat(FILMS.twoPart, { closes_min: 24 * HOUR })),
      coat(FILMS.twoPart),
      fitted,
    ],
  },
]

/** P(result | class) of the finish tests, priors, harm and time. Shop defaults, unsourced. */

import { FINISH_CLASSES, type PERIODS, type USES } from '../piece'

export const TEST_SLUGS = [
  'look',
  'white-spirit-rub',
  'uv-lamp',
  'thumbnail',
  'water-drop',
  'scrape',
  'alcohol-drop',
  'xylene-drop',
  'lacquer-thinner-drop',
] as const
export type TestSlug = (typeof TEST_SLUGS)[number]
/** `harm` to the piece, `solvent` to the worker: 0 none, 1 mild, 3 wants cartridges, gloves and an open door. */
export interface TestKind {
  slug: TestSlug
  harm: 0 | 1 | 2 | 3
  solvent: 0 | 1 | 2 | 3
  minutes: number
  how: string
  results: Record<string, readonly number[]>
}

/** The answer that a two-answer test leaves over. */
const opposite = (row: readonly number[]) => row.map(p => 1 - p)
const dents = [0.3, 0.7, 0.4, 0.35, 0.25, 0.3, 0.12, 0.2, 0.04, 0.35, 0.3]
const comesOff = [0.03, 0.85, 0.12, 0.04, 0.04, 0.04, 0.03, 0.04, 0.02, 0.08, 0.04]

export const TESTS: readonly TestKind[] = [
  {
    slug: 'look',
    harm: 0,
    solvent: 0,
    minutes: 2,
    how: 'Raking light and a loupe: is there a film, is it crazed, thick, opaque?',
    results: {
      'no film': [0.95, 0.7, 0.8, 0.05, 0.03, 0.04, 0.02, 0.05, 0.03, 0.6, 0.01],
      'crazed': [0, 0.01, 0.01, 0.4, 0.3, 0.25, 0.04, 0.02, 0.05, 0.01, 0.12],
      'thick, plastic': [0, 0.01, 0.01, 0.05, 0.12, 0.35, 0.62, 0.33, 0.45, 0.03, 0.05],
      'thin, clear': [0.05, 0.27, 0.17, 0.49, 0.54, 0.34, 0.31, 0.58, 0.45, 0.35, 0.01],
      'opaque': [0, 0.01, 0.01, 0.01, 0.01, 0.02, 0.01, 0.02, 0.02, 0.01, 0.81],
    },
  },
  {
    slug: 'white-spirit-rub',
    harm: 0,
    solvent: 1,
    minutes: 3,
    how: 'Rub 30 s with white spirit on a rag. Does wax or polish come off?',
    results: {
      'comes off': comesOff,
      'nothing comes off': opposite(comesOff),
    },
  },
  {
    slug: 'uv-lamp',
    harm: 0,
    solvent: 0,
    minutes: 4,
    how: 'Lamp on, room dark. Do not look into the lamp.',
    results: {
      'orange': [0.03, 0.03, 0.05, 0.65, 0.04, 0.05, 0.03, 0.02, 0.02, 0.03, 0.03],
      'milky, greenish': [0.05, 0.07, 0.3, 0.08, 0.55, 0.45, 0.15, 0.1, 0.12, 0.12, 0.12],
      'bluish white': [0.04, 0.62, 0.05, 0.05, 0.08, 0.08, 0.1, 0.2, 0.12, 0.3, 0.2],
      'dull': [0.88, 0.28, 0.6, 0.22, 0.33, 0.42, 0.72, 0.68, 0.74, 0.55, 0.65],
    },
  },
  {
    slug: 'thumbnail',
    harm: 1,
    solvent: 0,
    minutes: 1,
    how: 'Press a thumbnail in where it will not show.',
    results: {
      'dents': dents,
      'no dent': opposite(dents),
    },
  },
  {
    slug: 'water-drop',
    harm: 1,
    solvent: 0,
    minutes: 10,
    how: 'One drop of water, 5 to 10 min, wipe.',
    results: {
      'soaks in': [0.95, 0.15, 0.45, 0.05, 0.03, 0.03, 0.01, 0.03, 0.01, 0.12, 0.05],
      'white mark': [0.01, 0.25, 0.05, 0.45, 0.27, 0.07, 0.02, 0.07, 0.01, 0.08, 0.05],
      'nothing': [0.04, 0.6, 0.5, 0.5, 0.7, 0.9, 0.97, 0.9, 0.98, 0.8, 0.9],
    },
  },
  {
    slug: 'scrape',
    harm: 2,
    solvent: 0,
    minutes: 3,
    how: 'A blade held upright, one short stroke on a hidden spot.',
    results: {
      'powder': [0.02, 0.05, 0.05, 0.75, 0.65, 0.35, 0.08, 0.12, 0.15, 0.04, 0.45],
      'curls': [0.01, 0.02, 0.03, 0.12, 0.25, 0.5, 0.85, 0.78, 0.78, 0.06, 0.4],
      'waxy': [0.02, 0.83, 0.12, 0.08, 0.02, 0.05, 0.01, 0.04, 0.01, 0.35, 0.05],
      'wood at once': [0.95, 0.1, 0.8, 0.05, 0.08, 0.1, 0.06, 0.06, 0.06, 0.55, 0.1],
    },
  },
  {
    slug: 'alcohol-drop',
    harm: 2,
    solvent: 1,
    minutes: 3,
    how: 'One drop of alcohol, 30 to 60 s, press and wipe.',
    results: {
      sticky: [0.01, 0.03, 0.02, 0.85, 0.1, 0.02, 0.01, 0.04, 0.01, 0.01, 0.02],
      softens: [0.04, 0.12, 0.08, 0.12, 0.45, 0.13, 0.04, 0.46, 0.02, 0.09, 0.08],
      nothing: [0.95, 0.85, 0.9, 0.03, 0.45, 0.85, 0.95, 0.5, 0.97, 0.9, 0.9],
    },
  },
  {
    slug: 'xylene-drop',
    harm: 2,
    solvent: 3,
    minutes: 3,
    how: 'One drop of xylene, 60 s, press and wipe. Vapour cartridges, gloves, open door.',
    results: {
      gummy: [0.01, 0.4, 0.05, 0.03, 0.04, 0.05, 0.02, 0.75, 0.01, 0.05, 0.1],
      softens: [0.02, 0.35, 0.2, 0.1, 0.2, 0.3, 0.08, 0.18, 0.04, 0.25, 0.35],
      nothing: [0.97, 0.25, 0.75, 0.87, 0.76, 0.65, 0.9, 0.07, 0.95, 0.7, 0.55],
    },
  },
  {
    slug: 'lacquer-thinner-drop',
    harm: 3,
    solvent: 3,
    minutes: 3,
    how: 'One drop of lacquer thinner, 30 to 60 s, press and wipe. Vapour cartridges, gloves, open door.',
    results: {
      dissolves: [0.01, 0.35, 0.05, 0.7, 0.9, 0.05, 0.02, 0.1, 0.01, 0.03, 0.04],
      wrinkles: [0.01, 0.02, 0.05, 0.05, 0.02, 0.55, 0.2, 0.15, 0.04, 0.07, 0.6],
      softens: [0.03, 0.33, 0.3, 0.2, 0.06, 0.25, 0.18, 0.55, 0.1, 0.25, 0.21],
      nothing: [0.95, 0.3, 0.6, 0.05, 0.02, 0.15, 0.6, 0.2, 0.85, 0.65, 0.15],
    },
  },
]

/** Original finish by period. */
export const PRIORS: Readonly<Record<(typeof PERIODS)[number], readonly number[]>> = {
  'before-1850': [0.03, 0.15, 0.2, 0.35, 0, 0.22, 0, 0, 0, 0, 0.05],
  '1850-1925': [0.03, 0.07, 0.07, 0.48, 0, 0.27, 0, 0, 0, 0, 0.08],
  '1925-1960': [0.03, 0.03, 0.05, 0.18, 0.45, 0.2, 0, 0, 0, 0, 0.06],
  '1960-1990': [0.02, 0.02, 0.09, 0.04, 0.34, 0.1, 0.22, 0, 0.13, 0, 0.04],
  'after-1990': [0.02, 0.01, 0.05, 0.02, 0.14, 0.02, 0.24, 0.21, 0.2, 0.08, 0.01],
}

/** How the use of a piece shifts what was put on it: hard-used ones were coated tougher. Shop default, unsourced. */
export const USE_FACTORS: Readonly<Record<(typeof USES)[number], readonly number[]>> = {
  display: [1, 1.3, 1, 1.3, 1.1, 1, 0.8, 0.9, 0.7, 0.8, 1],
  daily: FINISH_CLASSES.map(() => 1),
  hard: [1, 0.5, 1, 0.7, 0.9, 1.2, 1.3, 1.1, 1.4, 1.2, 1.1],
  outdoors: [1.2, 0.3, 1.6, 0.3, 0.3, 1.5, 1.5, 0.6, 0.5, 0.8, 1.5],
}

/** No likelihood is ever nought. */
export const FLOOR = 0.005

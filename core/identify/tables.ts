/** P(result | class) of the finish tests, priors, harm and time. Shop defaults, unsourced. */

export const FINISH_CLASSES = ['none', 'wax', 'oil', 'shellac', 'nitrocellulose-lacquer', 'oil-varnish', 'oil-polyurethane',
  'waterborne', 'catalysed', 'hardwax-oil', 'oil-paint'] as const
export type FinishClass = typeof FINISH_CLASSES[number]

export interface TestKind { slug: string, harm: 0 | 1 | 2 | 3, minutes: number, how: string, results: Record<string, readonly number[]> }

/** The answer that a two-answer test leaves over. */
const opposite = (row: readonly number[]) => row.map(p => 1 - p)
const dents = [.30, .70, .40, .35, .25, .30, .12, .20, .04, .35, .30]
const comesOff = [.03, .85, .12, .04, .04, .04, .03, .04, .02, .08, .04]

export const TESTS: readonly TestKind[] = [
  { slug: 'look', harm: 0, minutes: 2, how: 'Raking light and a loupe: is there a film, is it crazed, thick, opaque?', results: {
    'no film': [.95, .70, .80, .05, .03, .04, .02, .05, .03, .60, .01],
    'crazed': [0, .01, .01, .40, .30, .25, .04, .02, .05, .01, .12],
    'thick, plastic': [0, .01, .01, .05, .12, .35, .62, .33, .45, .03, .05],
    'thin, clear': [.05, .27, .17, .49, .54, .34, .31, .58, .45, .35, .01],
    'opaque': [0, .01, .01, .01, .01, .02, .01, .02, .02, .01, .81],
  } },
  { slug: 'white-spirit-rub', harm: 0, minutes: 3, how: 'Rub 30 s with white spirit on a rag. Does wax or polish come off?', results: {
    'comes off': comesOff, 'nothing comes off': opposite(comesOff),
  } },
  { slug: 'uv-lamp', harm: 0, minutes: 4, how: 'Lamp on, room dark. Do not look into the lamp.', results: {
    'orange': [.03, .03, .05, .65, .04, .05, .03, .02, .02, .03, .03],
    'milky, greenish': [.05, .07, .30, .08, .55, .45, .15, .10, .12, .12, .12],
    'bluish white': [.04, .62, .05, .05, .08, .08, .10, .20, .12, .30, .20],
    'dull': [.88, .28, .60, .22, .33, .42, .72, .68, .74, .55, .65],
  } },
  { slug: 'thumbnail', harm: 1, minutes: 1, how: 'Press a thumbnail in where it will not show.', results: {
    'dents': dents, 'no dent': opposite(dents),
  } },
  { slug: 'water-drop', harm: 1, minutes: 10, how: 'One drop of water, 5 to 10 min, wipe.', results: {
    'soaks in': [.95, .15, .45, .05, .03, .03, .01, .03, .01, .12, .05],
    'white mark': [.01, .25, .05, .45, .27, .07, .02, .07, .01, .08, .05],
    'nothing': [.04, .60, .50, .50, .70, .90, .97, .90, .98, .80, .90],
  } },
  { slug: 'scrape', harm: 2, minutes: 3, how: 'A blade held upright, one short stroke on a hidden spot.', results: {
    'powder': [.02, .05, .05, .75, .65, .35, .08, .12, .15, .04, .45],
    'curls': [.01, .02, .03, .12, .25, .50, .85, .78, .78, .06, .40],
    'waxy': [.02, .83, .12, .08, .02, .05, .01, .04, .01, .35, .05],
    'wood at once': [.95, .10, .80, .05, .08, .10, .06, .06, .06, .55, .10],
  } },
  { slug: 'alcohol-drop', harm: 2, minutes: 3, how: 'One drop of alcohol, 30 to 60 s, press and wipe.', results: {
    'sticky': [.01, .03, .02, .85, .10, .02, .01, .04, .01, .01, .02],
    'softens': [.04, .12, .08, .12, .45, .13, .04, .46, .02, .09, .08],
    'nothing': [.95, .85, .90, .03, .45, .85, .95, .50, .97, .90, .90],
  } },
  { slug: 'xylene-drop', harm: 2, minutes: 3, how: 'One drop of xylene, 60 s, press and wipe. Vapour cartridges, gloves, open door.', results: {
    'gummy': [.01, .40, .05, .03, .04, .05, .02, .75, .01, .05, .10],
    'softens': [.02, .35, .20, .10, .20, .30, .08, .18, .04, .25, .35],
    'nothing': [.97, .25, .75, .87, .76, .65, .90, .07, .95, .70, .55],
  } },
  { slug: 'lacquer-thinner-drop', harm: 3, minutes: 3, how: 'One drop of lacquer thinner, 30 to 60 s, press and wipe. Vapour cartridges, gloves, open door.', results: {
    'dissolves': [.01, .35, .05, .70, .90, .05, .02, .10, .01, .03, .04],
    'wrinkles': [.01, .02, .05, .05, .02, .55, .20, .15, .04, .07, .60],
    'softens': [.03, .33, .30, .20, .06, .25, .18, .55, .10, .25, .21],
    'nothing': [.95, .30, .60, .05, .02, .15, .60, .20, .85, .65, .15],
  } },
]

export const PERIODS = ['before-1850', '1850-1925', '1925-1960', '1960-1990', 'after-1990'] as const
export type Period = typeof PERIODS[number] | 'unknown'

/** Original finish by period. */
export const PRIORS: Readonly<Record<typeof PERIODS[number], readonly number[]>> = {
  'before-1850': [.03, .15, .20, .35, 0, .22, 0, 0, 0, 0, .05],
  '1850-1925': [.03, .07, .07, .48, 0, .27, 0, 0, 0, 0, .08],
  '1925-1960': [.03, .03, .05, .18, .45, .20, 0, 0, 0, 0, .06],
  '1960-1990': [.02, .02, .09, .04, .34, .10, .22, 0, .13, 0, .04],
  'after-1990': [.02, .01, .05, .02, .14, .02, .24, .21, .20, .08, .01],
}

/** No likelihood is ever nought. */
export const FLOOR = 0.005

/** Pieces of the demo shop that are not stripped: bare, polished, renewed, painted over. */
import type { DemoPiece } from './pieces'

const SOUND = { period: '1960-1990', refinished: 'no', lead: 'no' }

export const GROUNDS: readonly DemoPiece[] = [
  {
    name: 'Work stool, bared by its owner',
    client: ['Tyra Mo', 'tyra@example.invalid'],
    faces: [
      ['seat', 'top', 'flat', 'horizontal', '380', '380', 1, 'ash'],
      ['legs', 'round', 'turned', 'vertical', '600', '38', 4, 'ash'],
    ],
    more: { ...SOUND, refinished: 'yes', use: 'hard' },
    tests: [
      ['look', 'no film'],
      ['water-drop', 'soaks in'],
      ['uv-lamp', 'dull'],
      ['scrape', 'wood at once'],
    ],
    findings: [[0, 'swirl-marks', 2, 'mend', ['area', 40, 40, 300, 300]]],
    choice: { route: 'as-it-stands', finish: 'varnish-oil' },
    story: 'approved',
  },
  {
    name: 'Lacquered music desk',
    client: ['Kammarkören Eken', 'eken@example.invalid'],
    faces: [['desk', 'front', 'flat', 'horizontal', '520', '360', 1, 'walnut']],
    more: { ...SOUND, sheen: 'gloss', use: 'display' },
    tests: [
      ['look', 'thin, clear'],
      ['lacquer-thinner-drop', 'dissolves'],
      ['alcohol-drop', 'nothing'],
      ['scrape', 'powder'],
    ],
    findings: [[0, 'scratches', 3, 'mend', ['line', 90, 60, 340, 250, 2]]],
    choice: { route: 'polish', finish: 'nitrocellulose-lacquer' },
    story: 'asked',
  },
  {
    name: 'Breakfast bar, oiled',
    client: ['Kvarnens Café', 'kvarnen@example.invalid'],
    faces: [['top', 'top', 'flat', 'horizontal', '1800', '420', 1, 'oak']],
    more: { ...SOUND, period: 'after-1990', use: 'hard', sheen: 'matt' },
    tests: [
      ['look', 'no film'],
      ['scrape', 'wood at once'],
      ['water-drop', 'nothing'],
      ['alcohol-drop', 'nothing'],
      ['white-spirit-rub', 'nothing comes off'],
    ],
    findings: [[0, 'white-ring', 3, 'mend', ['area', 600, 120, 690, 210]]],
    choice: { route: 'renew', finish: 'varnish-oil' },
    story: 'approved',
  },
  {
    name: 'Nursery wardrobe, to be painted',
    client: ['Sixten Hall', 'sixten@example.invalid'],
    surface: 'Opaque colour over surfacer, matt',
    faces: [
      ['doors', 'outside', 'flat', 'vertical', '1700', '450', 2, 'pine'],
      ['sides', 'outside', 'flat', 'vertical', '1700', '520', 2, 'pine'],
    ],
    more: { ...SOUND, sheen: 'matt' },
    tests: [
      ['lacquer-thinner-drop', 'wrinkles'],
      ['scrape', 'curls'],
    ],
    choice: { route: 'scuff', finish: 'oil-polyurethane' },
    words: 'You asked for paint. It hides the pine; taking it off again would cost more than this does.',
    story: 'asked',
  },
  {
    name: 'Garden room table on an iron base',
    client: ['Orangeriet Nord', 'orangeriet@example.invalid'],
    faces: [
      ['top', 'top', 'flat', 'horizontal', '1400', '760', 1, 'oak'],
      ['leaf', 'top', 'flat', 'horizontal', '450', '760', 2, 'oak'],
      ['base', 'bars', 'turned', 'vertical', '5200', '28', 1, 'unknown'],
      ['shelf', 'pane', 'flat', 'horizontal', '900', '400', 1, 'unknown'],
    ],
    made: { base: 'iron', shelf: 'glass' },
    more: { ...SOUND, use: 'hard' },
    tests: [
      ['lacquer-thinner-drop', 'wrinkles'],
      ['scrape', 'curls'],
    ],
    findings: [
      [0, 'black-ring', 3, 'mend', ['area', 300, 200, 390, 290]],
      [0, 'dents', 2, 'mend', ['point', 900, 400, 12]],
      [1, 'staples', 2, 'mend', ['point', 40, 40, 4, 1]],
    ],
    choice: { route: 'strip-chemical', finish: 'varnish-oil' },
    story: 'approved',
  },
]

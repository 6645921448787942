/** Pieces of the demo shop whose surface is composed as one known by name. */
import { KNOWN_SURFACES, laidAsKnown } from '../core/build'
import type { Caller } from './caller'
import type { DemoPiece } from './pieces'
import type { FaceRow } from './shop'

type Composed = DemoPiece & { surface: string }
const flat = (part: string, length: string, width: string, species: string, name = 'top'): FaceRow => [
  ...([part, name, 'flat', 'horizontal'] as const),
  ...([length, width, 1, species] as const),
]
const upright = (part: string, length: string, width: string, species: string, name = 'outside'): FaceRow => [
  ...([part, name, 'flat', 'vertical'] as const),
  ...([length, width, 2, species] as const),
]
const SOUND = { period: '1925-1960', refinished: 'no', lead: 'no' }
const STRIPPED = { route: 'strip-chemical', finish: 'oil-polyurethane' }
const VARNISH: Composed['tests'] = [
  ['lacquer-thinner-drop', 'wrinkles'],
  ['scrape', 'powder'],
]

export const COMPOSED: readonly Composed[] = [
  {
    name: 'Music cabinet',
    client: ['Runa Sjölin', 'runa@example.invalid'],
    surface: 'Filled lacquer, rubbed to satin',
    begun: 24,
    faces: [flat('top', '620', '410', 'mahogany'), upright('doors', '880', '290', 'mahogany')],
    more: { ...SOUND, tone: 'darker', sheen: 'satin' },
    tests: VARNISH,
    choice: { ...STRIPPED, finish: 'nitrocellulose-lacquer' },
    story: 'curing',
  },
  {
    name: 'Half-moon table',
    client: ['Alva Brink', 'alva@example.invalid'],
    surface: 'Two toners over stain, dark on the band',
    begun: 2,
    faces: [flat('top', '900', '450', 'birch'), flat('apron', '1400', '70', 'birch', 'band')],
    more: { ...SOUND, tone: 'darker', sheen: 'semi-gloss' },
    tests: VARNISH,
    choice: STRIPPED,
    story: 'approved',
  },
  {
    name: 'Instrument case',
    client: ['Observatory Högåsen', 'observatory@example.invalid'],
    surface: 'Dyed, with tinted sealer, under two-part urethane',
    faces: [flat('lid', '540', '380', 'oak'), upright('body', '540', '260', 'oak')],
    more: { ...SOUND, tone: 'darker', use: 'hard' },
    tests: VARNISH,
    choice: STRIPPED,
    story: 'planned',
  },
  {
    name: 'Chess table',
    client: ['Henrik Solberg', 'henrik@example.invalid'],
    surface: 'Raw oil, shellac over days, French polish',
    begun: 6,
    faces: [flat('top', '600', '600', 'walnut'), upright('apron', '560', '90', 'walnut')],
    more: { ...SOUND, sheen: 'gloss', use: 'display' },
    tests: VARNISH,
    choice: { ...STRIPPED, finish: 'dewaxed-shellac' },
    story: 'asked',
  },
  {
    name: 'Kitchen settle',
    client: ['Moa Lindahl', 'moa@example.invalid'],
    surface: 'Opaque colour over surfacer, matt',
    begun: 12,
    faces: [flat('seat', '1400', '420', 'pine'), upright('ends', '820', '420', 'pine')],
    more: { ...SOUND, sheen: 'matt', use: 'hard' },
    tests: VARNISH,
    choice: STRIPPED,
    story: 'asked-expired',
  },
  {
    name: 'Linen chest, pale',
    client: ['Disa Falk', 'disa@example.invalid'],
    surface: 'Bleached and paint-washed, matt',
    begun: 9,
    faces: [flat('lid', '1000', '460', 'oak'), upright('sides', '1000', '420', 'oak')],
    more: { ...SOUND, tone: 'lighter', sheen: 'matt' },
    tests: VARNISH,
    choice: STRIPPED,
    story: 'coated',
  },
  {
    name: 'Shop counter, short',
    client: ['Bakery Kringlan', 'kringlan@example.invalid'],
    surface: 'Gel toward opaque under a clear film',
    faces: [flat('top', '1500', '600', 'beech'), upright('front', '1500', '850', 'beech')],
    more: { ...SOUND, tone: 'darker', use: 'hard' },
    tests: VARNISH,
    choice: { route: 'scuff', finish: 'oil-polyurethane', colour: 'gel-stain' },
    story: 'planned',
  },
  {
    name: 'Milking stool',
    client: ['Farm museum Tallåsen', 'tallasen@example.invalid'],
    surface: 'Rustic water stain under an oil film',
    faces: [['seat', 'top', 'flat', 'horizontal', '320', '300', 1, 'pine']],
    more: { ...SOUND, tone: 'darker' },
    tests: VARNISH,
    choice: STRIPPED,
    story: 'planned',
  },
  {
    name: 'Tea trolley',
    client: ['Ebba Norling', 'ebba@example.invalid'],
    surface: 'Varnish oil, five coats',
    begun: 6,
    faces: [flat('upper tray', '700', '420', 'teak'), flat('lower tray', '700', '420', 'teak')],
    more: SOUND,
    tests: VARNISH,
    choice: { ...STRIPPED, finish: 'varnish-oil' },
    story: 'oiled',
  },
  {
    name: 'Reading desk',
    client: ['Parish library Näs', 'library@example.invalid'],
    surface: 'Two-part hardwax oil, one coat',
    faces: [flat('slope', '700', '500', 'oak')],
    more: { ...SOUND, sheen: 'matt' },
    tests: VARNISH,
    choice: { ...STRIPPED, finish: 'hardwax-oil-2c' },
    story: 'declined',
  },
  {
    name: 'Towel rail',
    client: ['Siv Hallgren', 'siv@example.invalid'],
    surface: 'Wiping varnish by rag, four coats',
    faces: [['rail', 'rods', 'turned', 'horizontal', '700', '25', 3, 'beech']],
    more: SOUND,
    tests: VARNISH,
    choice: { ...STRIPPED, finish: 'wiping-varnish' },
    story: 'planned',
  },
]

interface Page {
  rowVersion: number
  choice: { buildUps: [{ id: number; ground: 'strip-chemical'; ending: 'as-laid'; layers: []; faces: null }] }
  context: { facts: { faces: { id: number; part: string; name: string }[] } }
}
/** A number that no stored layer has: what comes from here is new. */
const FRESH = 4_000_000_000
/** Composes the surface of a piece as the one that is known by this name. */
export async function composeAsKnown(by: Caller, id: number, name: string): Promise<void> {
  const { rowVersion, choice, context } = await by.get<Page>(`/api/pieces/${id}/build-up`)
  const [main] = choice.buildUps
  const surface = KNOWN_SURFACES.find(k => k.name === name)!
  const { buildUp } = laidAsKnown(surface, main, context.facts.faces, FRESH)
  await by.send('PUT', `/api/pieces/${id}/build-up`, {
    rowVersion,
    buildUpId: main.id,
    ending: buildUp.ending,
    layers: buildUp.layers.map(({ label: _label, ...l }) => ({ ...l, productId: null })),
  })
}

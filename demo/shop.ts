/** The demo shop: a scenario of our own. People, clients and pieces are made up. */
export const PASSWORD = 'verdigris-9'
export const OWNER = { shop: 'Norrviks Möbelverkstad', name: 'Ingrid', login: 'ingrid', password: PASSWORD, zone: 'Europe/Stockholm', currency: 'SEK', lengthUnit: 'mm' }
export const PEOPLE = [['Tove', 'tove', 'lead'], ['Emil', 'emil', 'finisher'], ['Sara', 'sara', 'office']] as const

export const PRODUCTS: readonly [name: string, slug: string, price: number, lots: readonly [code: string, ml: number][]][] = [
  ['Solvent gel stripper, citrus', 'solvent-gel-stripper', 21000, [['G-114', 9000], ['G-120', 2500]]],
  ['White spirit', 'white-spirit', 9000, [['W-31', 10000]]],
  ['Mild soap, mixed', 'mild-soap', 3000, [['S-7', 5000]]],
  ['Dewaxed shellac, 2-pound cut', 'dewaxed-shellac', 28000, [['D-208', 2800], ['D-211', 1000]]],
  ['Nitrocellulose lacquer, gloss', 'nitrocellulose-lacquer', 26000, [['N-55', 4000]]],
  ['Waterborne polyurethane, satin', 'waterborne-polyurethane', 38000, [['P-77', 1900], ['P-81', 2500]]],
  ['Varnish oil', 'varnish-oil', 32000, [['O-19', 700]]],
  ['Oil-based gel stain, walnut tone', 'gel-stain', 34000, [['T-4', 950]]],
  ['Penetrating oil stain, honey tone', 'pigment-stain', 30000, [['T-12', 1000]]],
  ['Oil-based conditioner', 'oil-conditioner', 24000, [['C-2', 1000]]],
]

type FaceRow = [part: string, face: string, shape: string, orientation: string, length: string, width: string, count: number, species: string, veneer?: string]
export interface DemoPiece {
  name: string, client: [name: string, mail: string], faces: FaceRow[], more?: Record<string, unknown>
  tests?: [string, string][], findings?: [face: number, kind: string, grade: number, wish?: string][]
  choice?: { route: string, finish: string, colour?: string }
  begun?: number
  words?: string
  /** what happens after the yes */
  story?: 'asked' | 'asked-question' | 'approved' | 'dwelling' | 'oil-on' | 'conditioned' | 'drying' | 'curing' | 'gate-failed' | 'gate-open' | 'lacquer-next' | 'ready' | 'handed-over'
}
const varnish: [string, string][] = [['lacquer-thinner-drop', 'wrinkles'], ['scrape', 'powder'], ['uv-lamp', 'milky, greenish']]
const shellac: [string, string][] = [['alcohol-drop', 'sticky'], ['scrape', 'powder']]
const lacquer: [string, string][] = [['lacquer-thinner-drop', 'dissolves'], ['alcohol-drop', 'nothing'], ['scrape', 'powder']]

export const PIECES: readonly DemoPiece[] = [
  { name: 'Piano stool', client: ['Greta Almqvist', 'greta@example.invalid'], begun: 24, faces: [['seat', 'top', 'flat', 'horizontal', '340', '340', 1, 'beech'], ['legs', 'round', 'turned', 'vertical', '420', '45', 4, 'beech']], more: { period: '1850-1925', lead: 'no', refinished: 'no' }, tests: shellac, findings: [[0, 'scratches', 3]], choice: { route: 'scuff-and-recoat', finish: 'dewaxed-shellac' }, story: 'handed-over' },
  { name: 'Blanket box', client: ['Nils Ekbom', 'nils@example.invalid'], begun: 17, faces: [['lid', 'outside', 'flat', 'horizontal', '1100', '480', 1, 'elm'], ['body', 'sides', 'flat', 'vertical', '1100', '460', 2, 'elm'], ['body', 'ends', 'flat', 'vertical', '480', '460', 2, 'elm']], more: { period: '1925-1960', refinished: 'no', lead: 'no', keepPatina: true }, tests: lacquer, findings: [[0, 'worn-through', 4], [0, 'crazing', 3]], choice: { route: 'strip-chemical', finish: 'varnish-oil' }, story: 'ready' },
  { name: 'Tall clock case', client: ['Vera Stjernlund', 'vera@example.invalid'], begun: 11, faces: [['door', 'outside', 'flat', 'vertical', '1250', '300', 1, 'mahogany', '1.2'], ['hood', 'moulding', 'profiled', 'vertical', '900', '60', 2, 'mahogany']], more: { period: '1850-1925', lead: 'no', sheen: 'gloss', use: 'display' }, tests: shellac, findings: [[0, 'crazing', 4], [1, 'several-layers', 3]], choice: { route: 'strip-chemical', finish: 'nitrocellulose-lacquer' }, story: 'curing' },
  { name: 'Pharmacy shelf', client: ['Otto Wikner', 'otto@example.invalid'], begun: 7, faces: [['shelves', 'top', 'flat', 'horizontal', '1400', '260', 5, 'birch'], ['sides', 'outside', 'flat', 'vertical', '1900', '260', 2, 'birch']], more: { period: '1925-1960', refinished: 'no', lead: 'no' }, tests: varnish, findings: [[0, 'runs', 3], [1, 'brush-marks', 3]], choice: { route: 'level-barrier-recoat', finish: 'waterborne-polyurethane' }, story: 'gate-failed' },
  { name: 'Map chest, eight drawers', client: ['Harbour Museum Society', 'museum@example.invalid'], begun: 4, faces: [['top', 'outside', 'flat', 'horizontal', '1180', '840', 1, 'oak'], ['drawer fronts', 'front', 'flat', 'vertical', '1120', '95', 8, 'oak'], ['sides', 'outside', 'flat', 'vertical', '840', '900', 2, 'oak']], more: { period: '1925-1960', refinished: 'no', lead: 'no', use: 'hard' }, tests: varnish, findings: [[0, 'peeling', 3], [0, 'black-ring', 3], [1, 'scratches', 2]], choice: { route: 'strip-chemical', finish: 'waterborne-polyurethane' }, story: 'dwelling' },
  { name: 'Lectern', client: ['Parish of Sandnäs', 'parish@example.invalid'], begun: 11, faces: [['desk', 'face', 'flat', 'horizontal', '620', '480', 1, 'oak'], ['column', 'faces', 'profiled', 'vertical', '1050', '520', 1, 'oak']], more: { period: '1850-1925', lead: 'no', age: 'keep' }, tests: shellac, findings: [[0, 'worn-through', 4], [1, 'dirt-and-wax', 2]], choice: { route: 'strip-chemical', finish: 'varnish-oil' }, story: 'oil-on' },
  { name: 'Linen press', client: ['Maja Hedvall', 'maja@example.invalid'], begun: 6, faces: [['doors', 'outside', 'flat', 'vertical', '980', '460', 2, 'pine'], ['sides', 'outside', 'flat', 'vertical', '1700', '420', 2, 'pine']], more: { period: '1850-1925', lead: 'no', tone: 'darker' }, tests: shellac, findings: [[0, 'worn-through', 3], [0, 'dents', 2, 'keep']], choice: { route: 'strip-chemical', finish: 'dewaxed-shellac', colour: 'pigment-stain' }, story: 'conditioned' },
  { name: 'Specimen cabinet, 24 drawers', client: ['Lake School', 'school@example.invalid'], begun: 8, faces: [['doors', 'outside', 'flat', 'vertical', '820', '410', 2, 'birch', '0.6'], ['top', 'outside', 'flat', 'horizontal', '900', '420', 1, 'birch', '0.6']], more: { period: '1960-1990', lead: 'no', refinished: 'no' }, tests: [['lacquer-thinner-drop', 'dissolves'], ['alcohol-drop', 'softens'], ['scrape', 'powder']], findings: [[0, 'light-bleached', 3], [1, 'white-ring', 3]], choice: { route: 'strip-chemical', finish: 'waterborne-polyurethane' }, story: 'drying' },
  { name: 'Bookcase, glazed', client: ['Arvid Tornell', 'arvid@example.invalid'], begun: 4, faces: [['front frame', 'outside', 'flat', 'vertical', '1900', '420', 1, 'walnut'], ['sides', 'outside', 'flat', 'vertical', '1900', '320', 2, 'walnut']], more: { period: '1925-1960', refinished: 'no', lead: 'no' }, tests: varnish, findings: [[0, 'runs', 3]], choice: { route: 'level-barrier-recoat', finish: 'dewaxed-shellac' }, story: 'gate-open' },
  { name: 'Umbrella stand', client: ['Hotel Strandgården', 'hotel@example.invalid'], begun: 7, faces: [['body', 'slats', 'flat', 'vertical', '700', '60', 12, 'ash'], ['feet', 'round', 'turned', 'vertical', '90', '60', 4, 'ash']], more: { period: '1960-1990', lead: 'no', use: 'hard' }, tests: lacquer, findings: [[0, 'worn-through', 4]], choice: { route: 'strip-chemical', finish: 'nitrocellulose-lacquer' }, story: 'lacquer-next' },
  { name: 'Nursery cupboard, painted', client: ['Lisen Brandt', 'lisen@example.invalid'], begun: 3, faces: [['doors', 'outside', 'flat', 'vertical', '900', '420', 2, 'pine'], ['body', 'sides', 'flat', 'vertical', '1100', '400', 2, 'pine']], more: { period: '1925-1960', lead: 'unknown' }, tests: [['look', 'opaque'], ['lacquer-thinner-drop', 'wrinkles'], ['scrape', 'powder']], findings: [[0, 'old-paint', 4], [0, 'several-layers', 4], [1, 'peeling', 3]], choice: { route: 'strip-chemical', finish: 'waterborne-polyurethane' }, story: 'approved' },
  { name: 'Church pew, short', client: ['Parish of Sandnäs', 'parish@example.invalid'], begun: 3, faces: [['seat', 'top', 'flat', 'horizontal', '1600', '380', 1, 'pine'], ['back', 'front', 'flat', 'vertical', '1600', '520', 1, 'pine'], ['ends', 'outside', 'carved', 'vertical', '950', '420', 2, 'pine']], more: { period: '1850-1925', lead: 'no', tone: 'darker' }, tests: [...shellac, ['uv-lamp', 'orange']], findings: [[0, 'scratches', 3], [1, 'scratches', 2]], choice: { route: 'scuff-and-gel', finish: 'dewaxed-shellac', colour: 'gel-stain' }, words: 'The seat is worn but the film holds. Gel stain hides the scratches and keeps the age.', story: 'asked' },
  { name: 'Hat stand', client: ['Ebba Lindalm', 'ebba@example.invalid'], begun: 2, faces: [['column', 'round', 'turned', 'vertical', '1800', '55', 1, 'beech'], ['arms', 'round', 'turned', 'vertical', '300', '25', 6, 'beech']], more: { period: '1850-1925', lead: 'no' }, tests: shellac, findings: [[0, 'scratches', 2]], choice: { route: 'scuff-and-recoat', finish: 'dewaxed-shellac' }, words: 'A light coat of shellac would be enough.', story: 'asked-question' },
  { name: 'Writing slope', client: ['Karl Ottoson', ''], begun: 1, faces: [['lid', 'outside', 'flat', 'horizontal', '15 3/4 in', '10 1/2 in', 1, 'walnut', '1/32 in']], more: { period: '1850-1925', lead: 'no', keepPatina: true }, tests: [['look', 'thin, clear'], ['white-spirit-rub', 'comes off']], findings: [[0, 'dirt-and-wax', 3], [0, 'white-ring', 2]] },
  { name: 'Folding screen', client: ['Signe Malmros', 'signe@example.invalid'], begun: 0, faces: [['panels', 'frame', 'profiled', 'vertical', '1700', '120', 6, 'unknown']], more: { period: 'unknown', lead: 'unknown' } },
]

/** The demo shop: a scenario of our own. People, clients and pieces are made up. */
export const PASSWORD = 'verdigris-9'
export const PIN = '2580'
export const OWNER = {
  shop: 'Norrviks Möbelverkstad',
  name: 'Ingrid',
  login: 'ingrid',
  password: PASSWORD,
  zone: 'Europe/Stockholm',
  currency: 'SEK',
  lengthUnit: 'mm',
}
export const PEOPLE = [
  ['Tove', 'tove', 'lead'],
  ['Emil', 'emil', 'finisher'],
  ['Sara', 'sara', 'office'],
] as const

export const PRODUCTS: readonly [
  name: string,
  slug: string,
  price: number,
  lots: readonly [code: string, ml: number][],
][] = [
  [
    'Solvent gel stripper, citrus',
    'solvent-gel-stripper',
    21000,
    [
      ['G-114', 9000],
      ['G-120', 2500],
    ],
  ],
  ['White spirit', 'white-spirit', 9000, [['W-31', 10000]]],
  ['Mild soap, mixed', 'mild-soap', 3000, [['S-7', 5000]]],
  [
    'Dewaxed shellac, 2-pound cut',
    'dewaxed-shellac',
    28000,
    [
      ['D-208', 2800],
      ['D-211', 1000],
    ],
  ],
  ['Nitrocellulose lacquer, gloss', 'nitrocellulose-lacquer', 26000, [['N-55', 4000]]],
  [
    'Waterborne polyurethane, satin',
    'waterborne-polyurethane',
    38000,
    [
      ['P-77', 1900],
      ['P-81', 2500],
    ],
  ],
  ['Varnish oil', 'varnish-oil', 32000, [['O-19', 700]]],
  ['Oil-based gel stain, walnut tone', 'gel-stain', 34000, [['T-4', 950]]],
  ['Penetrating oil stain, honey tone', 'pigment-stain', 30000, [['T-12', 1000]]],
  ['Oil-based conditioner', 'oil-conditioner', 24000, [['C-2', 1000]]],
]

export type FaceRow = [
  part: string,
  face: string,
  shape: string,
  orientation: string,
  length: string,
  width: string,
  count: number,
  species: string,
  veneer?: string,
]
/** shape and figures in mm; `copy` 0 means all copies of the face */

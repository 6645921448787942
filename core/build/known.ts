/** Surfaces known by name: those that ship here, and those that a shop saved, for sets and for the next piece. */
import { actOf } from '../acts'
import { materialOf } from '../materials'
import type { Face, Facts } from '../piece'
import { speciesOf } from '../wood'
import { type BuildUp, type Layer, layerOf } from './layer'

/** A layer as it is known, without the faces of one piece. `on`: words in the names of its faces; null: all. */
export type KnownLayer = Omit<Layer, 'id' | 'label' | 'faces'> & { on: readonly string[] | null }
export interface KnownSurface extends Pick<BuildUp, 'ending'> {
  name: string
  sheen: Facts['sheen']
  tone: Facts['tone']
  /** species that it is known on; none: any */
  woods: readonly string[]
  layers: readonly KnownLayer[]
}

type Short = readonly [act: Layer['act'], product: string, more?: Partial<KnownLayer>]
const known = (
  name: string,
  [sheen, tone]: readonly [Facts['sheen'], Facts['tone']],
  woods: readonly string[],
  layers: readonly Short[],
  ending: BuildUp['ending'] = 'as-laid',
): KnownSurface => ({
  name,
  sheen,
  tone,
  woods,
  ending,
  layers: layers.map(([act, product, more]) => {
    const { id: _id, label: _label, faces: _faces, ...layer } = layerOf({ id: 0, act, product })
    return { ...layer, on: null, ...more }
  }),
})
const SEALER = { coats: 1, use: 'sealer' } as const
const OPEN = ['oak', 'ash', 'elm', 'walnut', 'mahogany', 'teak', 'rosewood']
const BLOTCHY = ['pine', 'birch', 'cherry', 'maple', 'poplar']

/** Surfaces that good finishers make (common practice); what comes between the layers is the plan's own. */
export const KNOWN_SURFACES: readonly KnownSurface[] = [
  known(
    'Filled lacquer, rubbed to satin',
    ['satin', 'darker'],
    OPEN,
    [
      ['coat', 'vinyl-sealer', SEALER],
      ['fill', 'paste-filler'],
      ['coat', 'vinyl-sealer', SEALER],
      ['toner', 'lacquer-toner'],
      ['coat', 'nitrocellulose-lacquer', { coats: 6 }],
    ],
    'rubbed',
  ),
  known('Two toners over stain, dark on the band', ['semi-gloss', 'darker'], BLOTCHY, [
    ['conditioner', 'oil-conditioner'],
    ['stain', 'pigment-stain'],
    ['toner', 'lacquer-toner', { coats: 1, fields: { shade: 'dark' }, on: ['band', 'edge', 'rim'] }],
    ['toner', 'lacquer-toner', { coats: 2, fields: { shade: 'light' } }],
    ['coat', 'vinyl-sealer', SEALER],
    ['coat', 'nitrocellulose-lacquer', { coats: 2 }],
  ]),
  known(
    'Dyed, with tinted sealer, under two-part urethane',
    ['satin', 'darker'],
    [],
    [
      ['dye', 'water-dye', { coats: 1 }],
      ['coat', 'vinyl-sealer', { ...SEALER, fields: { tint_pct: 3 } }],
      ['coat', 'vinyl-sealer', SEALER],
      ['coat', 'urethane-2c', { coats: 1, fields: { tint_pct: 2 } }],
      ['coat', 'urethane-2c', { coats: 1 }],
    ],
  ),
  known(
    'Raw oil, shellac over days, French polish',
    ['gloss', 'same'],
    [],
    [
      ['oil-on', 'raw-linseed', { coats: 1, use: 'under-shellac' }],
      ['coat', 'shellac-brushed', { coats: 2 }],
      ['french-polish', 'shellac-brushed', { coats: 3 }],
    ],
  ),
  known('Pores filled by shellac over days, French polish', ['gloss', 'same'], OPEN, [
    ['coat', 'shellac-brushed', { coats: 12, use: 'fills-pores' }],
    ['french-polish', 'shellac-brushed', { coats: 3 }],
  ]),
  known(
    'Opaque colour over surfacer, matt',
    ['matt', 'same'],
    [],
    [
      ['coat', 'lacquer-sanding-sealer', { coats: 2, use: 'sealer' }],
      ['coat', 'primer-surfacer', { coats: 2 }],
      ['putty', 'glazing-putty'],
      ['coat', 'opaque-colour', { coats: 3 }],
      ['coat', 'waterborne-polyurethane', { coats: 1 }],
    ],
  ),
  known(
    'Bleached and paint-washed, matt',
    ['matt', 'lighter'],
    [],
    [
      ['bleach', 'two-part-bleach'],
      ['paint-wash', 'paint-wash'],
      ['coat', 'waterborne-polyurethane', { coats: 2 }],
    ],
  ),
  known(
    'Gel toward opaque under a clear film',
    ['satin', 'darker'],
    [],
    [
      ['gel', 'gel-stain', { coats: 3 }],
      ['coat', 'oil-polyurethane', { coats: 2 }],
    ],
  ),
  known(
    'Rustic water stain under an oil film',
    ['satin', 'darker'],
    ['pine', 'poplar'],
    [
      ['stain', 'water-stain'],
      ['coat', 'wiping-varnish', { coats: 4 }],
    ],
  ),
  known('Varnish oil, five coats', ['satin', 'same'], [], [['oil-on', 'varnish-oil', { coats: 5 }]]),
  known('Two-part hardwax oil, one coat', ['matt', 'same'], [], [['oil-on', 'hardwax-oil-2c', { coats: 1 }]]),
  known('Wiping varnish by rag, four coats', ['satin', 'same'], [], [['coat', 'wiping-varnish', { coats: 4 }]]),
]

type Named = Pick<Face, 'id' | 'part' | 'name'>
const nameOf = (f: Named) => `${f.part}, ${f.name}`.toLowerCase()

/** A known surface laid on these faces. `missed`: words for faces that are not here; their layers lie on all. */
export function laidAsKnown(
  surface: KnownSurface,
  buildUp: BuildUp,
  faces: readonly Named[],
  from: number,
): { buildUp: BuildUp; missed: string[] } {
  const missed: string[] = []
  const layers = surface.layers.map(({ on, ...layer }, i): Layer => {
    const hits = on && faces.filter(f => on.some(word => nameOf(f).includes(word.toLowerCase()))).map(f => f.id)
    if (on && hits?.length === 0) missed.push(on.join(', '))
    const all = !hits || hits.length === 0 || hits.length === faces.length
    return { ...layer, id: from + i, label: null, faces: all ? null : hits }
  })
  return { buildUp: { ...buildUp, ending: surface.ending, layers }, missed }
}
/** A build-up as it is known on other pieces: without their faces, which it keeps by name. */
export function knownFrom(
  name: string,
  { ending, layers }: Pick<BuildUp, 'ending' | 'layers'>,
  { faces, sheen, tone }: Pick<Facts, 'faces' | 'sheen' | 'tone'>,
): KnownSurface {
  return {
    name,
    sheen,
    tone,
    ending,
    woods: [...new Set(faces.filter(f => f.scope === 'refinish').map(f => f.species))],
    layers: layers.map(({ id: _id, label: _label, faces: on, ...layer }) => ({
      ...layer,
      on: on && faces.filter(f => on.includes(f.id)).map(nameOf),
    })),
  }
}

/** What it is made of, from the wood upward. */
export const inWords = ({ layers }: Pick<KnownSurface, 'layers'>): string =>
  layers
    .map(l => {
      const what = l.product ? materialOf(l.product).name : actOf({ kind: l.act }).called
      return l.coats && l.coats > 1 ? `${what} ×${l.coats}` : what
    })
    .join(' · ')
/** How much of wood and look is as this piece wants it, 0 to 3. */
export const likeness = (
  { sheen, tone, woods }: KnownSurface,
  facts: Pick<Facts, 'faces' | 'sheen' | 'tone'>,
): number =>
  Number(sheen === facts.sheen) +
  Number(tone === facts.tone) +
  Number(facts.faces.some(f => f.scope === 'refinish' && woods.includes(f.species)))
const TONES: Record<Facts['tone'], string> = {
  lighter: 'lighter',
  same: 'same colour',
  darker: 'darker',
  match: 'to match',
}
/** Is everything that was typed found in its name, wood, look or layers? */
export function isSaidOf(surface: KnownSurface, typed: string): boolean {
  const { name, sheen, tone, woods } = surface
  const said = [name, sheen, TONES[tone], ...woods.map(w => speciesOf(w).name), inWords(surface)]
    .join(' ')
    .toLowerCase()
  return typed
    .toLowerCase()
    .split(/\s+/)
    .every(word => said.includes(word))
}

/**
 * Made-up pieces of every kind, the same ones each time: lists and chances stand here, so that a new product or
 * finding moves no piece.
 */
import { type House, USUAL_HOUSE } from '#core/house'
import { type Face, type Facts, type Finding, UNPLACED } from '#core/piece'
import { choice, face, facts, type Picked } from '../facts'

/** A ground named twice comes up twice as often. */
const ROUTES = [
  'clean-and-wax',
  'amalgamate',
  'spot-repair',
  'scuff',
  'scuff',
  'level-barrier-recoat',
  'strip-chemical',
  'strip-mechanical',
  'strip-both',
  'refer',
] as const
const FINISHES = [
  'dewaxed-shellac',
  'shellac-brushed',
  'nitrocellulose-lacquer',
  'waterborne-polyurethane',
  'oil-polyurethane',
  'wiping-varnish',
  'resin-oil-varnish',
  'urethane-2c',
  'varnish-oil',
  'hardwax-oil-2c',
  'raw-linseed',
  'paste-wax',
] as const
const COLOURS = [
  'none',
  'none',
  'gel-stain',
  'pigment-stain',
  'water-dye',
  'alcohol-dye',
  'lacquer-toner',
  'glaze',
  'paint-wash',
  'ammonia',
] as const
const FOUND = [
  'shellac',
  'nitrocellulose-lacquer',
  'oil-varnish',
  'oil-polyurethane',
  'waterborne',
  'catalysed',
  'wax',
  'oil',
  'oil-paint',
  'none',
] as const
const SPECIES = ['oak', 'pine', 'birch', 'walnut', 'mahogany', 'beech', 'elm', 'ash'] as const
const FINDINGS = [
  'dirt-and-wax',
  'scratches',
  'dents',
  'nail-holes',
  'white-ring',
  'black-ring',
  'crazing',
  'runs',
  'orange-peel',
  'water-beads',
  'fish-eyes',
  'peeling',
  'several-layers',
  'worn-through',
  'veneer-chipped',
  'crack',
  'open-joint',
  'loose-leg',
  'old-paint',
] as const
const HOUSE: Partial<{ [S in keyof House]: readonly House[S][] }> = {
  'first': ['strip', 'sand'],
  'orbit-on-tops': ['yes', 'no'],
  'stop-under-stain': ['P150', 'P180'],
  'conditioner': ['where-blotchy', 'always', 'never'],
  'between-coats': ['P320', 'P400', 'P220'],
  'abrade-with': ['pads', 'steel-wool'],
  'dust': ['tack-cloth', 'damp-cloth', 'air-only'],
  'fill-when': ['fill-stain', 'stain-fill', 'seal-fill-seal'],
  'fill-wipe': ['across', 'with'],
  'raise-grain': ['when-water', 'always', 'never'],
  'oil-under-shellac': ['none', 'raw', 'boiled'],
  'satin-by': ['can', 'rub'],
  'dry-by': ['label', 'rag'],
}

/** mulberry32: a small generator of numbers from 0 to 1 by seed. */
export function chances(seed: number): () => number {
  let a = seed
  return () => {
    a = (a + 0x6d2b79f5) | 0
    let t = Math.imul(a ^ (a >>> 15), 1 | a)
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}

/** One made-up piece and what is chosen for it. */
export function randomPiece(seed: number): { facts: Facts; choice: Picked; house: House } {
  const next = chances(seed)
  const one = <T>(list: readonly T[]): T => list[Math.floor(next() * list.length)]!
  const often = (p: number) => next() < p
  const count = 1 + Math.floor(next() * 4)
  const faces = Array.from({ length: count }, (_, i): Face => {
    const substrate = often(0.25) ? ('veneer' as const) : ('solid' as const)
    return face({
      id: i + 1,
      part: one(['top', 'door', 'leg', 'drawer front', 'frame']),
      name: one(['outside', 'inside', 'upper', 'front']),
      scope: i > 0 && often(0.15) ? one(['protect', 'match'] as const) : 'refinish',
      rank: one(['show', 'show', 'secondary', 'hidden'] as const),
      shape: substrate === 'veneer' ? 'flat' : one(['flat', 'flat', 'profiled', 'turned', 'carved'] as const),
      orientation: one(['horizontal', 'vertical'] as const),
      area_m2: Math.round((0.05 + next() * 1.5) * 1000) / 1000,
      species: one(SPECIES),
      substrate,
      veneer_mm: substrate === 'veneer' ? one([null, 0.5, 0.7, 1.2]) : null,
      film_um: null,
      finishGroup: often(0.15) ? 'B' : 'A',
    })
  })
  const findings = Array.from({ length: Math.floor(next() * 4) }, (): Finding => ({
    faceId: 1 + Math.floor(next() * count),
    kind: one(FINDINGS),
    grade: 1 + Math.floor(next() * 5),
    wish: one(['mend', 'mend', 'keep', 'tolerate'] as const),
    place: UNPLACED,
  }))
  const found = { finish: one(FOUND), certainty: one([0.5, 0.8, 0.95]) }
  const house: House = { ...USUAL_HOUSE }
  for (const slug of Object.keys(HOUSE) as (keyof House)[])
    if (often(0.3)) Object.assign(house, { [slug]: one<string>(HOUSE[slug]!) })
  const own =
    count > 2 && often(0.2)
      ? [
          {
            faces: [count],
            route: one(ROUTES),
            finish: one(FINISHES),
            colour: one(COLOURS),
            conditioner: 'auto' as const,
          },
        ]
      : undefined
  return {
    house,
    facts: facts({
      use: one(['display', 'daily', 'hard'] as const),
      tone: one(['lighter', 'same', 'darker', 'match'] as const),
      sheen: one(['matt', 'satin', 'semi-gloss', 'gloss'] as const),
      age: one(['keep', 'new'] as const),
      period: one(['before-1850', '1850-1925', '1925-1960', '1960-1990', 'unknown'] as const),
      refinished: one(['yes', 'no', 'unknown'] as const),
      keepPatina: often(0.2),
      lead: one(['no', 'no', 'no', 'unknown', 'yes'] as const),
      found: often(0.9) ? found : null,
      finishes: often(0.5)
        ? [{ group: 'A', layers: often(0.3) ? [found, { finish: one(FOUND), certainty: 0.8 }] : [found] }]
        : [],
      wet: often(0.1) ? [{ faceId: 1, most_pct: 11.2, likely_d: 12 }] : [],
      undecided: often(0.1) ? ['pulls'] : [],
      marks: often(0.1) ? ['stamp under the top'] : [],
      movingCracks:
        findings.some(f => f.kind === 'crack') && often(0.5) ? [findings.find(f => f.kind === 'crack')!.faceId] : [],
      sample: one(['none', 'none', 'bare', 'under-finish'] as const),
      pace: often(0.2) ? { stripper: 14, sanding: 22 } : { stripper: null, sanding: null },
      bans: often(0.08) ? ['dry-sanding'] : [],
      faces,
      findings,
    }),
    choice: choice({
      route: one(ROUTES),
      finish: one(FINISHES),
      colour: one(COLOURS),
      conditioner: one(['auto', 'auto', 'none', 'oil-conditioner', 'water-conditioner'] as const),
      fill: one(['none', 'none', 'paste-filler', 'waterborne-filler'] as const),
      bleach: one(['none', 'none', 'none', 'two-part-bleach', 'oxalic-acid'] as const),
      film_um: often(0.15) ? one([40, 90]) : null,
      ...(own ? { own } : {}),
    }),
  }
}

/**
 * Species as data. Pores, blotching, tannin: common practice. Density: shop default, unsourced. `tone` is the
 * drawing's colour only.
 */

/**
 * Change of width per percent of moisture, tangential and radial; Wood Handbook FPL-GTR-190, table 13-5, 6–14 %, from
 * memory.
 */
export interface Movement {
  tangential: number
  radial: number
}

export interface Species {
  slug: string
  name: string
  pores: 'open' | 'closed'
  blotches: boolean
  tannin: boolean
  softwood: boolean
  density_kg_m3: number
  /** null: not in the table; `movementOf` then assumes the largest */
  movement: Movement | null
  /** why its sale across borders may be restricted, or null */
  cites: string | null
  tone: string
}

const moves = (tangential: number, radial: number): Movement => ({ tangential, radial })
const ROSEWOOD = 'Rosewoods stand in CITES appendices.'
const MAHOGANY = 'Some mahoganies stand in CITES appendices; the exact species decides.'

type Row = [
  slug: string,
  name: string,
  pores: Species['pores'],
  traits: string,
  density_kg_m3: number,
  movement: Movement | null,
  tone: string,
  cites?: string,
]
/** traits: b blotches, t tannin, s softwood (drinks more) */
const ROWS: readonly Row[] = [
  ['oak', 'oak', 'open', 't', 700, moves(0.00365, 0.0018), '#c49a66'],
  ['white-oak', 'white oak', 'open', 't', 710, moves(0.00365, 0.0018), '#c6a06e'],
  ['red-oak', 'red oak', 'open', 't', 690, moves(0.00369, 0.00158), '#c08e63'],
  ['ash', 'ash', 'open', '', 680, moves(0.00274, 0.00169), '#d6b98c'],
  ['elm', 'elm', 'open', '', 600, moves(0.00338, 0.00144), '#b98d5e'],
  ['walnut', 'walnut', 'open', 't', 640, moves(0.00274, 0.0019), '#7d5a3f'],
  ['mahogany', 'mahogany', 'open', 't', 560, moves(0.00238, 0.00172), '#9a5b3c', MAHOGANY],
  ['teak', 'teak', 'open', '', 650, moves(0.00186, 0.00101), '#a97c4b'],
  ['rosewood', 'rosewood', 'open', '', 850, null, '#5f3a2c', ROSEWOOD],
  ['chestnut', 'chestnut', 'open', 't', 560, null, '#b08a5c'],
  ['cherry', 'cherry', 'closed', 'b', 580, moves(0.00248, 0.00126), '#b5774c'],
  ['maple', 'maple', 'closed', 'b', 700, moves(0.00353, 0.00165), '#dcc49c'],
  ['birch', 'birch', 'closed', 'b', 650, moves(0.00338, 0.00256), '#d8bd90'],
  ['beech', 'beech', 'closed', '', 720, moves(0.00431, 0.0019), '#cda27a'],
  ['poplar', 'poplar', 'closed', 'bs', 450, moves(0.00289, 0.00158), '#cfc19a'],
  ['pine', 'pine', 'closed', 'bs', 450, moves(0.00212, 0.00071), '#dcb67a'],
  ['unknown', 'unknown wood', 'open', 'bt', 600, null, '#b99a74'],
]

export const SPECIES: readonly Species[] = ROWS.map(
  ([slug, name, pores, traits, density_kg_m3, movement, tone, cites]) => ({
    slug,
    name,
    pores,
    density_kg_m3,
    movement,
    tone,
    cites: cites ?? null,
    blotches: traits.includes('b'),
    tannin: traits.includes('t'),
    softwood: traits.includes('s'),
  }),
)

const bySlug = new Map(SPECIES.map(s => [s.slug, s]))

/** The species, or the cautious `unknown` (blotches, tannin) when the slug is not in the table. */
export const speciesOf = (slug: string): Species => bySlug.get(slug) ?? bySlug.get('unknown')!

const LARGEST: Movement = SPECIES.reduce(
  (most, s) => (s.movement && s.movement.tangential > most.tangential ? s.movement : most),
  moves(0, 0),
)

/** Movement of a species; where the table has none the largest of the table is assumed, and said so. */
export function movementOf(slug: string): Movement & { assumed: boolean } {
  const known = speciesOf(slug).movement
  return { ...(known ?? LARGEST), assumed: known === null }
}

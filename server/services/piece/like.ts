/** Pieces like this one, and what was done to them: by name, wood, what was laid on, and client. */
import { MATERIALS } from '#core/materials'
import { ROUTE_NAMES, type RouteSlug } from '#core/piece'
import { db } from '../../database/db'
import { readPiece } from './read'

const MOST = 6
/** What counts how much (shop default); less than this together is no likeness. */
const WEIGHT = { name: 3, wood: 2, layer: 1, client: 1 } as const
const LEAST = 3
/** A word of a name shorter than this tells no kind of piece. */
const LEAST_WORD = 4

interface LikeRow {
  id: number
  name: string
  client: string
  state: 'active' | 'ready' | 'handed-over'
  taken_in_at: Date
  handed_over_at: Date | null
  ground: RouteSlug
  by_name: number
  by_wood: number
  layers_alike: number
  by_client: number
  products: string | null
  worked_min: number | null
  failed: number
}

/** Words that name a kind of piece, for a REGEXP: "table|clock". */
const wordsOf = (name: string) =>
  name
    .split(/[^\p{L}]+/u)
    .filter(word => word.length >= LEAST_WORD)
    .join('|') || '^$'

/** The likest first, then the newest. `worked_min`: hands until now. */
export async function likePieces(id: number) {
  const { piece, facts, choice } = await readPiece(db(), id)
  const products = [...new Set(choice?.buildUps.flatMap(b => b.layers.flatMap(l => l.product ?? [])) ?? [])]
  const woods = [...new Set(facts.faces.filter(f => f.scope === 'refinish').map(f => f.species))]
  const rows = await db().rows<LikeRow>(
    `SELECT alike.*, client.name AS client,
        (SELECT ground FROM build_up WHERE piece_id = alike.id ORDER BY position LIMIT 1) AS ground,
        (SELECT GROUP_CONCAT(layer.product ORDER BY build_up.position, layer.position)
          FROM build_up
          JOIN layer ON layer.build_up_id = build_up.id
          WHERE build_up.piece_id = alike.id AND layer.product IS NOT NULL) AS products,
        (SELECT SUM(TIMESTAMPDIFF(SECOND, from_at, to_at)) / 60
          FROM work_spell
          JOIN plan_step ON plan_step.id = work_spell.step_id
          WHERE plan_step.piece_id = alike.id AND to_at IS NOT NULL) AS worked_min,
        (SELECT COUNT(*) FROM plan_step WHERE piece_id = alike.id AND gate_result = 'fail') AS failed
        FROM (
          SELECT piece.id, piece.name, piece.client_id, piece.state, piece.taken_in_at, piece.handed_over_at,
              piece.name REGEXP :words AS by_name,
              piece.client_id = :client AS by_client,
              EXISTS (
                SELECT 1
                  FROM part
                  JOIN face ON face.part_id = part.id
                  WHERE part.piece_id = piece.id AND part.scope = 'refinish' AND face.species IN (:woods)
              ) AS by_wood,
              (SELECT COUNT(DISTINCT layer.product)
                FROM build_up
                JOIN layer ON layer.build_up_id = build_up.id
                WHERE build_up.piece_id = piece.id AND layer.product IN (:products)) AS layers_alike
            FROM piece
            WHERE piece.id <> :id
              AND EXISTS (SELECT 1 FROM build_up WHERE build_up.piece_id = piece.id)
        ) alike
        JOIN client ON client.id = alike.client_id
        WHERE ${WEIGHT.name} * by_name + ${WEIGHT.wood} * by_wood + ${WEIGHT.layer} * layers_alike
          + ${WEIGHT.client} * by_client >= ${LEAST}
        ORDER BY ${WEIGHT.name} * by_name + ${WEIGHT.wood} * by_wood + ${WEIGHT.layer} * layers_alike
          + ${WEIGHT.client} * by_client DESC, alike.id DESC
        LIMIT ${MOST}`,
    {
      id,
      words: wordsOf(piece.name),
      client: piece.client_id,
      woods: woods.length ? woods : [''],
      products: products.length ? products : [''],
    },
  )
  const named = (slug: string) => MATERIALS.find(m => m.slug === slug)?.name ?? slug
  return rows.map(({ by_name, by_wood, by_client, layers_alike, products: laid, ground, ...row }) => ({
    ...row,
    ground: ROUTE_NAMES[ground] ? ground : null,
    laid: [...new Set(laid?.split(',') ?? [])].map(named),
    alike: { name: by_name > 0, wood: by_wood > 0, layers: layers_alike > 0, client: by_client > 0 },
  }))
}

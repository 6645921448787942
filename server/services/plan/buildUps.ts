import { gritName, gritsRead } from '#core/abrasives'
import { actOf, type LayerUse, type Method, type StepKind } from '#core/acts'
import { type BuildUp, type Choice, type Ending, type Layer, LAYER_KINDS, type LayerFields } from '#core/build'
import type { RouteSlug } from '#core/piece'
import type { Db } from '../../database/db'

export interface BuildUpRow {
  id: number
  piece_id: number
  position: number
  ground: RouteSlug
  ending: Ending
  /** numbers in text; null: every face that no other has */
  faces: string | null
}
export interface LayerRow {
  id: number
  piece_id: number
  build_up_id: number
  position: number
  act: StepKind
  product: string | null
  product_id: number | null
  /** the newest label of its product */
  label: number | null
  coats: number | null
  film_um: number | null
  method: Method | null
  grit: string | null
  used_as: LayerUse | null
  fields: LayerFields
  faces: string | null
}
/** Kinds of layer that may be the finish. */
export const FINISHING = LAYER_KINDS.filter(kind => actOf({ kind }).layer?.finish)
/** What the main build-up of a piece ends with; `:finishing`: the kinds of layer that may. */
export const FINISH_OF_PIECE = `(
          SELECT l.product
            FROM layer l
            JOIN build_up b ON b.id = l.build_up_id
            WHERE b.piece_id = piece.id AND l.used_as IS NULL AND l.act IN (:finishing)
            ORDER BY b.position, l.position DESC
            LIMIT 1
        )`
const listed = (faces: string | null): number[] | null => (faces === null ? null : faces.split(',').map(Number))

const layerOfRow = (r: LayerRow): Layer => ({
  id: r.id,
  act: r.act,
  product: r.product,
  label: r.label,
  coats: r.coats,
  film_um: r.film_um,
  method: r.method,
  between: r.grit === null ? null : (gritsRead(r.grit)[0] ?? null),
  use: r.used_as,
  fields: r.fields,
  faces: listed(r.faces),
})

/** The choice that stands in the database; null before a ground was chosen. */
export function choiceOfRows(buildUps: readonly BuildUpRow[], layers: readonly LayerRow[]): Choice | null {
  const [main, ...rest] = buildUps.map((b): BuildUp => ({
    id: b.id,
    ground: b.ground,
    ending: b.ending,
    layers: layers.filter(l => l.build_up_id === b.id).map(layerOfRow),
    faces: listed(b.faces),
  }))
  return main ? { buildUps: [main, ...rest] } : null
}

/** A layer as it is stored; `productId`: the shop's own product, where one was chosen. */
export type LayerDraft = Omit<Layer, 'label'> & { productId: number | null }

async function writeLayer(
  tx: Db,
  buildUpId: number,
  position: number,
  layer: LayerDraft,
  { stays, keepNumbers }: { stays: boolean; keepNumbers: boolean },
) {
  const row = {
    // 0: it gets a number
    id: stays || keepNumbers ? layer.id : 0,
    buildUpId,
    position,
    act: layer.act,
    product: layer.product,
    productId: layer.productId,
    coats: layer.coats,
    film_um: layer.film_um,
    method: layer.method,
    grit: layer.between && gritName(layer.between),
    use: layer.use,
    fields: JSON.stringify(layer.fields),
  }
  if (stays) {
    await tx.run(
      `UPDATE layer
          SET build_up_id = :buildUpId, position = :position, act = :act, product = :product, product_id = :productId,
            coats = :coats, film_um = :film_um, method = :method, grit = :grit, used_as = :use, fields = :fields
          WHERE id = :id`,
      row,
    )
    await tx.run('DELETE FROM layer_face WHERE layer_id = :id', row)
  }
  const id = stays
    ? layer.id
    : (
        await tx.run(
          `INSERT INTO layer (
              id, build_up_id, position, act, product, product_id, coats, film_um, method, grit, used_as, fields
            )
              VALUES (
                :id, :buildUpId, :position, :act, :product, :productId, :coats, :film_um, :method, :grit, :use, :fields
              )`,
          row,
        )
      ).id
  if (layer.faces?.length)
    await tx.run('INSERT INTO layer_face (layer_id, face_id) VALUES :rows', { rows: layer.faces.map(f => [id, f]) })
}

/**
 * Writes the layers of a build-up: those that were there keep their id, the others get one. `keepNumbers`: they have
 * one, given when this surface was written down and not taken.
 */
export async function writeLayers(
  tx: Db,
  buildUpId: number,
  layers: readonly LayerDraft[],
  { keepNumbers = false } = {},
): Promise<void> {
  const known = new Set(
    (await tx.rows<{ id: number }>('SELECT id FROM layer WHERE build_up_id = :buildUpId', { buildUpId })).map(
      r => r.id,
    ),
  )
  const kept = layers.filter(l => known.has(l.id)).map(l => l.id)
  for (const id of known) if (!kept.includes(id)) await tx.run('DELETE FROM layer WHERE id = :id', { id })
  for (const [i, layer] of layers.entries())
    await writeLayer(tx, buildUpId, (i + 1) * 10, layer, { stays: known.has(layer.id), keepNumbers })
}

/** A new build-up of a piece, after those that it has. */
export async function insertBuildUp(
  tx: Db,
  pieceId: number,
  { ground, ending, faces }: Pick<BuildUp, 'ground' | 'ending' | 'faces'>,
): Promise<number> {
  const { id } = await tx.run(
    `INSERT INTO build_up (piece_id, position, ground, ending)
        SELECT :pieceId, COALESCE(MAX(position), 0) + 1, :ground, :ending FROM build_up WHERE piece_id = :pieceId`,
    { pieceId, ground, ending },
  )
  if (faces?.length)
    await tx.run('INSERT INTO build_up_face (build_up_id, face_id) VALUES :rows', { rows: faces.map(f => [id, f]) })
  return id
}
export const setGround = (tx: Db, id: number, { ground, ending }: Pick<BuildUp, 'ground' | 'ending'>) =>
  tx.run('UPDATE build_up SET ground = :ground, ending = :ending WHERE id = :id', { id, ground, ending })

/** Takes faces out of the build-ups that they have; one that is left without faces goes. */
export async function freeFaces(tx: Db, pieceId: number, faces: readonly number[]): Promise<void> {
  for (const face of faces) await tx.run('DELETE FROM build_up_face WHERE face_id = :face', { face })
  await tx.run(
    `DELETE FROM build_up
        WHERE piece_id = :pieceId AND id <> (
          SELECT id FROM (SELECT MIN(id) AS id FROM build_up WHERE piece_id = :pieceId) first
        ) AND NOT EXISTS (SELECT 1 FROM build_up_face WHERE build_up_id = build_up.id)`,
    { pieceId },
  )
}

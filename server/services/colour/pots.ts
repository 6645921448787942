import { wentHome } from '#core/piece'
import type { z } from 'zod'
import { materialOf } from '#core/materials'
import { type Ingredient, mixture } from '#core/mixing'
import { round } from '#core/units'
import type * as c from '#shared/colour'
import { db, type Db, transaction } from '../../database/db'
import type { Person } from '../shop/person'
import { CARRIERS, type Line, writeLines } from './potLines'
import { BATCHES, type BatchRow, potEnds_ms, readBatch, readContents, readLines, readTries } from './potRows'
import { write } from './potTurn'
import { readRecipe } from './recipes'

/** Of each pot: g a ml of what was poured, and the classes of its products. */
async function substances(ids: readonly number[]): Promise<Map<number, { density: number; classes: string[] }>> {
  if (ids.length === 0) return new Map()
  const rows = await db().rows<{ id: number; density: number | null; classes: string | null }>(
    `SELECT batch_id AS id, SUM(poured_g) / SUM(IF(poured_g > 0, poured_g / density, NULL)) AS density,
        GROUP_CONCAT(DISTINCT class) AS classes
        FROM batch_line
        WHERE batch_id IN (:ids)
        GROUP BY batch_id`,
    { ids },
  )
  return new Map(rows.map(r => [r.id, { density: Number(r.density ?? 1), classes: r.classes?.split(',') ?? [] }]))
}

/** Pots that stand about, or all; those of one piece. A leftover is kept until its piece has been handed over. */
export async function listBatches(query: z.infer<typeof c.batchQuery>) {
  const rows = await db().rows<BatchRow>(
    `${BATCHES}
      WHERE (:which = 'all' OR batch.closed_at IS NULL) AND (:piece IS NULL OR batch.piece_id = :piece)
      ORDER BY batch.id DESC
      LIMIT 300`,
    { which: query.which, piece: query.piece ?? null },
  )
  const made = await substances(rows.map(r => r.id))
  return rows.map(r => ({
    ...r,
    ...(made.get(r.id) ?? { density: 1, classes: [] }),
    potEnds_ms: potEnds_ms(r),
    mayGo: wentHome(r.piece_state) || (r.piece_id === null && r.left_g === 0),
  }))
}

/** Pots with a running life, for Now. */
export async function runningPots() {
  const rows = await db().rows<BatchRow>(
    `${BATCHES}
      WHERE batch.closed_at IS NULL AND batch.mixed_at IS NOT NULL AND batch.pot_min IS NOT NULL
        AND (batch.left_g IS NULL OR batch.left_g > 0)
      ORDER BY batch.mixed_at + INTERVAL batch.pot_min MINUTE`,
  )
  return rows.map(b => ({
    id: b.id,
    name: b.name,
    piece: b.piece,
    mixed_ms: b.mixed_at!.getTime(),
    ends_ms: potEnds_ms(b)!,
  }))
}

async function recipeLines(
  tx: Db,
  input: Extract<z.infer<typeof c.addBatch>, { kind: 'recipe' }>,
): Promise<{ name: string; lines: Line[] }> {
  const recipe = await readRecipe(tx, input.recipeId)
  const material = materialOf(recipe.class)
  const rest = 100 - recipe.shares.reduce((s, x) => s + x.pct, 0)
  const lines = recipe.shares.map((s): Line => ({
    name: s.name,
    class: recipe.class,
    productId: s.id,
    density: material.density,
    wanted_g: (input.total_g * s.pct) / 100,
  }))
  return {
    name: recipe.name,
    lines:
      rest > 0.001
        ? [
            ...lines,
            {
              name: CARRIERS[material.base]!,
              class: null,
              productId: null,
              density: material.density,
              wanted_g: (input.total_g * rest) / 100,
            },
          ]
        : lines,
  }
}
function mixLines(input: Extract<z.infer<typeof c.addBatch>, { kind: 'mix' }>): { name: string; lines: Line[] } {
  try {
    const mixed = mixture(input.ingredients satisfies Ingredient[], input.by, input.wanted)
    return {
      name: input.name,
      lines: mixed.lines.map(({ name, g }, i) => {
        const { productId, class: kind, density_g_ml: density } = input.ingredients[i]!
        return { name, class: kind, productId, density, wanted_g: g }
      }),
    }
  } catch (error) {
    throw error instanceof RangeError ? fail(422, 'invalid', error.message) : error
  }
}

export const addBatch = (input: z.infer<typeof c.addBatch>, person: Person, at: Date) =>
  transaction(async tx => {
    const { name, lines } = input.kind === 'recipe' ? await recipeLines(tx, input) : mixLines(input)
    const { id } = await tx.run(
      `INSERT INTO batch (name, recipe_id, piece_id, smallest_g, pot_min, note, person_id, at)
          VALUES (:name, :recipeId, :pieceId, :smallest_g, :pot_min, :note, :personId, :at)`,
      {
        ...input,
        ingredients: undefined,
        wanted: undefined,
        name,
        recipeId: input.kind === 'recipe' ? input.recipeId : null,
        personId: person.id,
        at,
      },
    )
    await writeLines(tx, id, 0, lines)
    await write(
      tx,
      { piece_id: input.pieceId },
      `Pot ${id} begun: ${name}, ${round(
        lines.reduce((s, l) => s + l.wanted_g, 0),
        1,
      )} g`,
      person,
      at,
    )
    return { id }
  })

/** A pot with its lines, lots to take from, tries, and its recipe. */
export async function batchPage(id: number) {
  const batch = await readBatch(db(), id)
  const lines = await readLines(db(), id)
  const products = [...new Set(lines.flatMap(l => l.product_id ?? []))]
  const lots = products.length
    ? await db().rows<{ id: number; product_id: number; code: string; left_amount: number }>(
        `SELECT id, product_id, code, left_amount
            FROM lot
            WHERE product_id IN (:products) AND left_amount > 0 AND gone_at IS NULL
            ORDER BY received_on, id`,
        { products },
      )
    : []
  const recipe = batch.recipe_id ? await readRecipe(db(), batch.recipe_id) : null
  return {
    ...batch,
    potEnds_ms: potEnds_ms(batch),
    lines,
    lots,
    contents: await readContents(db(), lines, id),
    tries: await readTries(db(), id),
    recipe,
  }
}

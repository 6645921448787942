import type { z } from 'zod'
import {
  type ClearCoat,
  deltaE00,
  judgeRecipe,
  labOfSpectrum,
  labOf,
  LIGHTS,
  type Light,
  type Observer,
  type SearchQuestion,
  searchQuestion,
  type Share,
  type UnderLight,
  viewingOf,
  type Wipe,
} from '#core/colour'
import type * as c from '#shared/colour'
import { db, type Db, transaction } from '../../database/db'
import { log, tell } from '../platform/log'
import { cannotRead } from '../platform/readable'
import type { Person } from '../shop/person'
import { onWood, readColourants } from './colourants'
import { isSpectrum, type ReadingRow, readReading } from './readings'

export interface RecipeRow {
  id: number
  name: string
  piece_id: number | null
  piece: string | null
  client: string | null
  class: string
  coats: number
  wipe: Wipe
  clear_coat: ClearCoat | null
  wood_id: number
  sapwood_id: number | null
  target_id: number
  species: string
  target: string
  lights: string
  observer: Observer
  bleached: 0 | 1
  score: number
  worst: number
  under: UnderLight[]
  predicted: number[]
  target_spectrum: number[]
  from_id: number | null
  note: string
  by_name: string
  at: Date
  /** what the piece's plan takes of this class; null without a plan */
  planned_ml: number | null
}
const RECIPES = `SELECT recipe.id, recipe.name, recipe.piece_id, piece.name AS piece, client.name AS client,
    recipe.class, recipe.coats, recipe.wipe, recipe.clear_coat, recipe.wood_id, recipe.sapwood_id, recipe.target_id,
    wood.species, target.name AS target, recipe.lights, recipe.observer, recipe.bleached, recipe.score,
    recipe.worst, recipe.under, recipe.predicted, recipe.aim AS target_spectrum, recipe.from_id, recipe.note,
    person.name AS by_name, recipe.at,
    (
      SELECT SUM(amount_ml)
        FROM plan_step
        WHERE plan_step.piece_id = recipe.piece_id AND product = recipe.class AND plan_step.state <> 'skipped'
    ) AS planned_ml
    FROM recipe
    JOIN reading wood ON wood.id = recipe.wood_id
    JOIN reading target ON target.id = recipe.target_id
    JOIN person ON person.id = recipe.person_id
    LEFT JOIN piece ON piece.id = recipe.piece_id
    LEFT JOIN client ON client.id = piece.client_id`

export interface ShareLine {
  id: number
  name: string
  pct: number
  left_ml: number
}
export async function readShares(on: Db, ids: readonly number[]): Promise<Map<number, ShareLine[]>> {
  const rows = ids.length
    ? await on.rows<ShareLine & { recipe_id: number }>(
        `SELECT s.recipe_id, s.product_id AS id, product.name, s.pct,
            COALESCE((
              SELECT SUM(lot.left_amount) FROM lot WHERE lot.product_id = s.product_id AND lot.gone_at IS NULL
            ), 0) AS left_ml
            FROM recipe_share s
            JOIN product ON product.id = s.product_id
            WHERE s.recipe_id IN (:ids)
            ORDER BY s.pct DESC`,
        { ids },
      )
    : []
  return new Map(ids.map(id => [id, rows.filter(r => r.recipe_id === id).map(({ recipe_id: _r, ...s }) => s)]))
}

/** The question that a recipe answers, with the colourants that are named. */
export async function questionOf(
  on: Db,
  r: Pick<RecipeRow, 'coats' | 'wipe' | 'clear_coat' | 'observer' | 'bleached'> & { lights: readonly Light[] },
  wood: ReadingRow,
  sapwood: ReadingRow | null,
  target: ReadingRow,
  ids: readonly number[],
): Promise<SearchQuestion> {
  const set = onWood(await readColourants(on), wood.species).filter(k => ids.includes(k.id))
  if (set.length !== ids.length)
    throw fail(422, 'unknown-reference', 'One of these products is no colourant. Measure a band of it first.')
  if (new Set(set.map(k => k.group)).size > 1)
    throw fail(422, 'invalid', 'These colourants do not mix: they need different carriers. Take them in two steps.')
  return searchQuestion({
    woods: [wood, ...(sapwood ? [sapwood] : [])],
    target,
    colourants: set,
    clearCoat: r.clear_coat,
    bleached: Boolean(r.bleached),
    lights: r.lights,
    observer: r.observer,
    coats: r.coats,
    wipe: r.wipe,
  })
}

/** What a recipe promises, worked out here, whatever the browser had. */
export async function judgedRecipe(tx: Db, input: z.infer<typeof c.saveRecipe>) {
  const [wood, sapwood, target] = [
    await readReading(tx, input.woodId),
    input.sapwoodId ? await readReading(tx, input.sapwoodId) : null,
    await readReading(tx, input.targetId),
  ]
  const q = await questionOf(
    tx,
    { ...input, clear_coat: input.clearCoat, bleached: input.bleached ? 1 : 0 },
    wood,
    sapwood,
    target,
    input.shares.map(s => s.id),
  )
  const over = input.shares.find(s => s.pct > q.colourants.find(k => k.id === s.id)!.most_pct + 1e-6)
  if (over) {
    const { name, most_pct } = q.colourants.find(k => k.id === over.id)!
    throw fail(422, 'invalid', `${name} is of use up to ${most_pct} %.`)
  }
  const judged = judgeRecipe(q, input.shares)
  return { q, judged, everyLight: judgeRecipe({ ...q, lights: LIGHTS }, input.shares).under }
}
export const saveRecipe = (input: z.infer<typeof c.saveRecipe>, person: Person, at: Date) =>
  transaction(tx => keepRecipe(tx, input, person, at))
/** Keeps a recipe for ever. */
export async function keepRecipe(tx: Db, input: z.infer<typeof c.saveRecipe>, person: Person, at: Date) {
  const { q, judged, everyLight } = await judgedRecipe(tx, input)
  const { id } = await tx.run(
    `INSERT INTO recipe (
          name, piece_id, class, coats, wipe, clear_coat, wood_id, sapwood_id, target_id, lights, observer,
          bleached, score, worst, under, aim, predicted, from_id, note, person_id, at
        )
          VALUES (
            :name, :pieceId, :class, :coats, :wipe, :clearCoat, :woodId, :sapwoodId, :targetId, :lights, :observer,
            :bleached, :score, :worst, :under, :aim, :predicted, :fromId, :note, :personId, :at
          )`,
    {
      ...input,
      shares: undefined,
      class: judged.group,
      lights: input.lights.join(','),
      score: judged.score,
      worst: judged.worst,
      under: JSON.stringify(everyLight),
      aim: JSON.stringify(q.target),
      predicted: JSON.stringify(judged.predicted[0]),
      personId: person.id,
      at,
    },
  )
  for (const s of input.shares)
    await tx.run('INSERT INTO recipe_share (recipe_id, product_id, pct) VALUES (:recipeId, :id, :pct)', {
      ...s,
      recipeId: id,
    })
  const says =
    `Recipe ${id}, ${input.name}: ` +
    `${input.shares.map(s => `${q.colourants.find(k => k.id === s.id)!.name} ${s.pct.toFixed(1)} %`).join(', ')}; ` +
    `ΔE00 ${judged.score.toFixed(2)} expected`
  await log(tx, { pieceId: input.pieceId, kind: 'colour', says, at, recordedAt: at, personId: person.id })
  await tell(tx, input.pieceId ? 'piece' : 'store', input.pieceId, at)
  return { id, score: judged.score, worst: judged.worst, under: everyLight }
}

/** Recipes by words (name, piece, client, wood, target), by wood, or by how near their target is to another reading. */
export async function listRecipes(query: z.infer<typeof c.recipeQuery>) {
  const rows = await db().rows<RecipeRow>(
    `${RECIPES}
      WHERE (:find = '' OR CONCAT_WS(' ', recipe.name, piece.name, client.name, wood.species, target.name, recipe.note)
        LIKE CONCAT('%', :find, '%')) AND (:species IS NULL OR wood.species = :species)
      ORDER BY recipe.id DESC
      LIMIT 300`,
    { find: query.find.replaceAll(/[\\%_]/g, '\\$&'), species: query.species ?? null },
  )
  const shares = await readShares(
    db(),
    rows.map(r => r.id),
  )
  const daylight = viewingOf('d65')
  const wanted = query.target ? labOf((await readReading(db(), query.target)).spectrum, daylight) : null
  const lines = rows
    .filter(r => isSpectrum(r.target_spectrum) && isSpectrum(r.predicted) && Array.isArray(r.under))
    .map(r => ({
      ...r,
      lab: labOfSpectrum(r.target_spectrum),
      shares: shares.get(r.id)!,
      away: wanted ? deltaE00(wanted, labOf(r.target_spectrum, daylight)) : null,
    }))
  return wanted ? lines.sort((a, b) => a.away! - b.away!) : lines
}

export async function readRecipe(on: Db, id: number): Promise<RecipeRow & { shares: ShareLine[] }> {
  const row = await on.row<RecipeRow>(`${RECIPES} WHERE recipe.id = :id`, { id })
  if (!row) throw notFound('recipe')
  if (!isSpectrum(row.target_spectrum) || !isSpectrum(row.predicted)) throw cannotRead(`recipe ${id} is damaged`)
  return { ...row, shares: (await readShares(on, [id])).get(id)! }
}

/** A recipe with the readings it rests on and the pots made from it. */
export async function recipePage(id: number) {
  const recipe = await readRecipe(db(), id)
  const [wood, target] = [await readReading(db(), recipe.wood_id), await readReading(db(), recipe.target_id)]
  const batches = await db().rows<{ id: number; name: string; at: Date; piece: string | null; left_g: number | null }>(
    `SELECT batch.id, batch.name, batch.at, piece.name AS piece, batch.left_g
        FROM batch
        LEFT JOIN piece ON piece.id = batch.piece_id
        WHERE batch.recipe_id = :id
        ORDER BY batch.id DESC`,
    { id },
  )
  return { ...recipe, wood, targetReading: target, batches }
}

export const lightsOf = (r: Pick<RecipeRow, 'lights'>): Light[] => r.lights.split(',') as Light[]
export const sharesOnly = (shares: readonly ShareLine[]): Share[] => shares.map(({ id, pct }) => ({ id, pct }))

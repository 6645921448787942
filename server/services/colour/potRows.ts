import type { ClearCoat, Gloss, Share } from '#core/colour'
import { contentsOf } from '#core/mixing'
import type { Db } from '../../database/db'

const MIN_MS = 60_000

export interface BatchRow {
  id: number
  name: string
  recipe_id: number | null
  piece_id: number | null
  piece: string | null
  client: string | null
  piece_state: string | null
  smallest_g: number
  pot_min: number | null
  mixed_at: Date | null
  left_g: number | null
  place: string
  closed_at: Date | null
  note: string
  by_name: string
  at: Date
  row_version: number
}
export interface BatchLine {
  id: number
  batch_id: number
  turn: number
  position: number
  name: string
  class: string | null
  product_id: number | null
  lot_id: number | null
  lot: string | null
  density: number
  wanted_g: number
  poured_g: number | null
}
export const BATCHES = `SELECT batch.id, batch.name, batch.recipe_id, batch.piece_id, piece.name AS piece,
    client.name AS client, piece.state AS piece_state, batch.smallest_g, batch.pot_min, batch.mixed_at,
    batch.left_g, batch.place,
    batch.closed_at, batch.note, person.name AS by_name, batch.at, batch.row_version
    FROM batch
    JOIN person ON person.id = batch.person_id
    LEFT JOIN piece ON piece.id = batch.piece_id
    LEFT JOIN client ON client.id = piece.client_id`
const LINES = `SELECT l.id, l.batch_id, l.turn, l.position, l.name, l.class, l.product_id, l.lot_id, lot.code AS lot,
      l.density, l.wanted_g, l.poured_g
      FROM batch_line l
      LEFT JOIN lot ON lot.id = l.lot_id`

export async function readBatch(on: Db, id: number, lock = false): Promise<BatchRow> {
  if (lock) await on.row('SELECT id FROM batch WHERE id = :id FOR UPDATE', { id })
  const row = await on.row<BatchRow>(`${BATCHES} WHERE batch.id = :id`, { id })
  if (!row) throw notFound('pot')
  return row
}
export const readLines = (on: Db, id: number) =>
  on.rows<BatchLine>(`${LINES} WHERE l.batch_id = :id ORDER BY l.turn, l.position`, { id })

export const potEnds_ms = (b: Pick<BatchRow, 'mixed_at' | 'pot_min'>): number | null =>
  b.mixed_at && b.pot_min ? b.mixed_at.getTime() + b.pot_min * MIN_MS : null

export interface Content {
  name: string
  product_id: number | null
  g: number
}
/** What is in a pot: each correction was poured to what was left then. */
export async function readContents(on: Db, lines: readonly BatchLine[], id: number): Promise<Content[]> {
  const lefts = await on.rows<{ turn: number; left_g: number }>(
    'SELECT turn, left_g FROM batch_correction WHERE batch_id = :id',
    { id },
  )
  const fillings = [...new Set(lines.map(l => l.turn))].map(turn => ({
    left_g: lefts.find(l => l.turn === turn)?.left_g ?? null,
    lines: lines.filter(l => l.turn === turn).map(l => ({ name: l.name, g: l.poured_g ?? 0 })),
  }))
  return contentsOf(fillings).map(c => ({ ...c, product_id: lines.find(l => l.name === c.name)!.product_id }))
}
export const weightOf = (contents: readonly Content[]) => contents.reduce((s, c) => s + c.g, 0)

/** Shares of a pot's colourants as it is now; null where it is no colour of a recipe or nothing is in it. */
export async function potShares(on: Db, id: number): Promise<Share[] | null> {
  const contents = await readContents(on, await readLines(on, id), id)
  const total = weightOf(contents)
  return total > 0
    ? contents.flatMap(c => (c.product_id && c.g > 0 ? [{ id: c.product_id, pct: (100 * c.g) / total }] : []))
    : null
}

interface TryRow {
  turn: number
  reading_id: number
  foretold: number | null
  reached: number
  at: Date
  spectrum: number[]
  clear_coat: ClearCoat | null
  gloss: Gloss
}
export const readTries = (on: Db, id: number) =>
  on.rows<TryRow>(
    `SELECT t.turn, t.reading_id, t.foretold, t.reached, t.at, r.spectrum, r.clear_coat, r.gloss
        FROM batch_try t
        JOIN reading r ON r.id = t.reading_id
        WHERE t.batch_id = :id
        ORDER BY t.turn`,
    { id },
  )

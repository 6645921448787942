import type { z } from 'zod'
import { labOfSpectrum, type Light } from '#core/colour'
import type * as c from '#shared/colour'
import { db } from '../../database/db'
import { FINISH_OF_PIECE, FINISHING } from '../plan/buildUps'
import { readShop } from '../shop/rows'
import { readColourants } from './colourants'
import { type ReadingRow, READINGS, withSpectrum } from './readings'

/** Readings, colourants with their spectra by wood, and recipes' classes: what the Colour pages rest on. */
export async function colourPage(query: z.infer<typeof c.colourQuery>) {
  const readings = await db().rows<ReadingRow>(
    `${READINGS} AND (:piece IS NULL OR r.piece_id = :piece OR r.piece_id IS NULL) ORDER BY r.id DESC LIMIT 500`,
    { piece: query.piece ?? null },
  )
  const taught = await db().rows<{ class: string; species: string; bands: number }>(
    `SELECT recipe.class, band.species, COUNT(*) AS bands
        FROM band
        JOIN recipe ON recipe.id = band.recipe_id
        WHERE band.reading_id IS NOT NULL AND band.withdrawn_at IS NULL AND band.coats > 0
        GROUP BY recipe.class, band.species
        ORDER BY bands DESC`,
  )
  const colours = await db().rows<{ class: string; coats: number }>(
    `SELECT product AS class, COUNT(DISTINCT coat) AS coats
        FROM plan_step
        WHERE piece_id = :piece AND state <> 'skipped' AND kind IN ('stain', 'gel', 'dye', 'toner')
        GROUP BY product`,
    { piece: query.piece ?? 0 },
  )
  const piece = query.piece
    ? await db().row<{ finish: string | null; room_light: Light | null }>(
        `SELECT ${FINISH_OF_PIECE} AS finish, room_light FROM piece WHERE id = :piece`,
        { ...query, finishing: FINISHING },
      )
    : null
  return {
    readings: withSpectrum(readings).map(r => ({ ...r, lab: labOfSpectrum(r.spectrum) })),
    colourants: await readColourants(db()),
    taught,
    plan: piece && { finish: piece.finish, colours },
    lights: { room: piece?.room_light ?? null, shop: (await readShop()).light },
  }
}

import type { z } from 'zod'
import {
  type Band,
  byRecord,
  type ClearCoat,
  colourantFromBand,
  type Colourant,
  type ColourRecord,
  type Gloss,
  innerOf,
  type LightHistory,
  recordKey,
  type Share,
  surfaceOf,
  type Wipe,
} from '#core/colour'
import { materialOf } from '#core/materials'
import type * as c from '#shared/colour'
import { type Db, transaction } from '../../database/db'
import type { Person } from '../shop/person'
import { innerOfReading, isSpectrum, readReading, withSpectrum } from './readings'
import { record, refused } from './told'

export interface ColourantRow {
  product_id: number
  name: string
  class: string
  lies: Colourant['lies']
  most_pct: number
  spectrum: number[]
  left_ml: number
  row_version: number
  onWood: { species: string; spectrum: number[]; bands: number; error_before: number; error_after: number }[]
}

export async function readColourants(on: Db): Promise<ColourantRow[]> {
  const rows = await on.rows<Omit<ColourantRow, 'onWood'>>(
    `SELECT k.product_id, product.name, product.class, k.lies, k.most_pct, k.spectrum, k.row_version,
        COALESCE((
          SELECT SUM(lot.left_amount) FROM lot WHERE lot.product_id = k.product_id AND lot.gone_at IS NULL
        ), 0) AS left_ml
        FROM colourant k
        JOIN product ON product.id = k.product_id
        ORDER BY product.class, k.product_id`,
  )
  const learnt = await on.rows<ColourantRow['onWood'][number] & { product_id: number }>(
    'SELECT product_id, species, spectrum, bands, error_before, error_after FROM colourant_on_wood',
  )
  return withSpectrum(rows).map(r => ({
    ...r,
    onWood: withSpectrum(learnt)
      .filter(l => l.product_id === r.product_id)
      .map(({ product_id: _id, ...l }) => l),
  }))
}

/** Colourants as they act on a wood: what was learnt on it, else what is on record. */
export const onWood = (rows: readonly ColourantRow[], species: string): Colourant[] =>
  rows.map(r => ({
    id: r.product_id,
    name: r.name,
    group: r.class,
    lies: r.lies,
    most_pct: r.most_pct,
    k: r.onWood.find(l => l.species === species)?.spectrum ?? r.spectrum,
  }))

/** A product of the store becomes a colourant: its spectrum from a band of known strength and the wood below it. */
export const addColourant = (input: z.infer<typeof c.addColourant>, person: Person, at: Date) =>
  transaction(async tx => {
    const [wood, read] = [await readReading(tx, input.woodId), await readReading(tx, input.bandId)]
    const product = await tx.row<{ name: string }>('SELECT name FROM product WHERE id = :productId', input)
    if (!product) throw fail(422, 'unknown-reference', 'There is no such product in the store.')
    const band: Band = {
      id: read.id,
      inner: innerOfReading(wood),
      shares: [],
      coats: input.coats,
      wipe: input.wipe,
      surface: surfaceOf(read),
      read: read.spectrum,
    }
    const k = refused(() => colourantFromBand(band, input.lies, input.pct))
    await tx.run(
      `INSERT INTO colourant (product_id, lies, most_pct, spectrum)
          VALUES (:productId, :lies, :most_pct, :k)
          ON DUPLICATE KEY UPDATE lies = :lies, most_pct = :most_pct, spectrum = :k, row_version = row_version + 1`,
      { ...input, k: JSON.stringify(k) },
    )
    await record(tx, null, `Colourant measured: ${product.name}, from a band of ${input.pct} %`, person, at)
    return { id: input.productId }
  })

interface BandRow extends ColourRecord {
  id: number
  piece_id: number
  piece: string
  title: string
  recipe_id: number
  shares: Share[]
  coats: number
  clear_coat: ClearCoat | null
  species: string
  light_history: LightHistory
  spectrum: number[]
  gloss: Gloss
  wood: number[]
  wood_coat: ClearCoat | null
  wood_gloss: Gloss
  class: string
  recipe_wipe: Wipe
}
/** Coloured bands that were read, with what was on them and the wood below: what teaches. */
async function readLessons(on: Db, colourClass: string, species: string): Promise<BandRow[]> {
  return on.rows<BandRow>(
    `SELECT band.id, band.piece_id, piece.name AS piece, band.title, band.recipe_id, band.shares, band.coats,
        r.clear_coat, band.species, band.light_history, band.grit, band.scale, band.conditioner,
        band.applicator, band.dwell_min, band.wipe, band.temperature_C, r.spectrum, r.gloss,
        wood.spectrum AS wood, wood.clear_coat AS wood_coat, wood.gloss AS wood_gloss, recipe.class,
        recipe.wipe AS recipe_wipe
        FROM band
        JOIN piece ON piece.id = band.piece_id
        JOIN reading r ON r.id = band.reading_id
        JOIN recipe ON recipe.id = band.recipe_id
        JOIN reading wood ON wood.id = recipe.wood_id
        WHERE band.withdrawn_at IS NULL
          AND band.coats > 0
          AND band.shares IS NOT NULL
          AND r.given IS NULL
          AND recipe.bleached = FALSE
          AND recipe.class = :colourClass
          AND band.species = :species
        ORDER BY band.id`,
    { colourClass, species },
  )
}

/** Refits the colourants of a class on a wood from bands of one record; `apply` keeps the result. */
export const learn = (input: z.infer<typeof c.learn>, person: Person, at: Date) =>
  transaction(async tx => {
    const all = withSpectrum(await readLessons(tx, input.class, input.species)).filter(
      b => isSpectrum(b.wood) && Array.isArray(b.shares),
    )
    const groups = byRecord(all).map(g => ({ key: recordKey(g[0]!), bands: g.length }))
    const chosen = all.filter(b => recordKey(b) === (input.record || groups[0]?.key))
    const bands: Band[] = chosen.map(b => ({
      id: b.id,
      inner: innerOf(b.wood, surfaceOf({ clear_coat: b.wood_coat, gloss: b.wood_gloss })),
      shares: b.shares,
      coats: b.coats,
      wipe: b.wipe,
      surface: surfaceOf(b),
      read: b.spectrum,
    }))
    const taught = new Set(chosen.flatMap(b => b.shares.map(s => s.id)))
    const set = onWood(await readColourants(tx), input.species).filter(k => taught.has(k.id))
    const result = await refusedInWorker(inWorker('learnFrom', { set, bands, without: input.without }))
    const used = bands.length - input.without.filter(id => bands.some(b => b.id === id)).length
    if (input.apply) {
      for (const k of result.colourants) {
        await tx.run(
          `INSERT INTO colourant_on_wood (
              product_id, species, spectrum, bands, error_before, error_after, person_id, at
            )
              VALUES (:id, :species, :k, :used, :before, :after, :personId, :at)
              ON DUPLICATE KEY UPDATE spectrum = :k, bands = :used, error_before = :before,
                error_after = :after, person_id = :personId, at = :at`,
          {
            id: k.id,
            species: input.species,
            k: JSON.stringify(k.k),
            used,
            before: result.before,
            after: result.after,
            personId: person.id,
            at,
          },
        )
      }
      await record(
        tx,
        null,
        `Learnt from ${used} bands: ${materialOf(input.class).name} on ${input.species}, ΔE00 ` +
          `${result.before.toFixed(2)} to ${result.after.toFixed(2)}`,
        person,
        at,
      )
    }
    return {
      groups,
      record: input.record || groups[0]?.key || '',
      before: result.before,
      after: result.after,
      colourants: result.colourants.map(k => ({
        id: k.id,
        name: k.name,
        before: set.find(s => s.id === k.id)!.k,
        after: k.k,
      })),
      bands: result.bands.map(b => {
        const row = chosen.find(r => r.id === b.id)!
        return { ...b, piece: row.piece, title: row.title, left: input.without.includes(b.id) }
      }),
    }
  })

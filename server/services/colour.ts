import type { z } from 'zod'
import {
  BANDS,
  type Band,
  byRecord,
  type ClearCoat,
  clearCoat,
  colourantFromBand,
  type Colourant,
  type ColourRecord,
  type Gloss,
  innerOf,
  labOfSpectrum,
  type LightHistory,
  type Light,
  type Observer,
  reconstruct,
  recordKey,
  type Share,
  spectrumFrom,
  type Spectrum,
  type Surface,
  type Wipe,
} from '#core/colour'
import { type Sample, writeCgats, writeSamplesCsv } from '#core/formats'
import { materialOf } from '#core/materials'
import { round } from '#core/units'
import type * as c from '#shared/colour'
import { db, type Db, transaction } from '../database/db'
import { measureSample } from './instruments'
import type { Person } from './people'
import { cannotRead } from './readable'
import { log, tell } from './record'
import { readShop } from './shop'

/** CIELAB as it was given, with the light and observer that it belongs to. */
export interface GivenLab {
  L: number
  a: number
  b: number
  light: Light
  observer: Observer
}

export interface ReadingRow {
  id: number
  piece_id: number | null
  piece: string | null
  name: string
  role: 'wood' | 'target' | 'band' | 'other'
  spectrum: number[]
  given: GivenLab | null
  clear_coat: ClearCoat | null
  gloss: Gloss
  species: string
  zone: 'heartwood' | 'sapwood'
  light_history: LightHistory
  source: 'meter' | 'file' | 'typed'
  by_name: string
  at: Date
}
export const READINGS = `SELECT r.id, r.piece_id, piece.name AS piece, r.name, r.role, r.spectrum, r.given,
    r.clear_coat, r.gloss, r.species, r.zone, r.light_history, r.source, person.name AS by_name, r.at
    FROM reading r
    JOIN person ON person.id = r.person_id
    LEFT JOIN piece ON piece.id = r.piece_id
    WHERE r.withdrawn_at IS NULL`

export const surfaceOf = (r: { clear_coat: ClearCoat | null; gloss: Gloss }): Surface => ({
  clear: r.clear_coat ? clearCoat(r.clear_coat) : null,
  gloss: r.gloss,
})
/** The wood's inner reflectance below a reading. */
export const innerOfReading = (r: ReadingRow): Spectrum => innerOf(r.spectrum, surfaceOf(r))

/** 31 numbers; a row that holds anything else is left out of lists, and refused by itself. */
export const isSpectrum = (value: unknown): value is Spectrum =>
  Array.isArray(value) && value.length === BANDS && value.every(v => Number.isFinite(v))
export const withSpectrum = <T extends { spectrum: unknown }>(rows: readonly T[]): T[] =>
  rows.filter(r => isSpectrum(r.spectrum))

export async function readReading(on: Db, id: number): Promise<ReadingRow> {
  const row = await on.row<ReadingRow>(`${READINGS} AND r.id = :id`, { id })
  if (!row) throw fail(422, 'unknown-reference', 'There is no such reading; perhaps it was withdrawn.')
  if (!isSpectrum(row.spectrum)) throw cannotRead(`the reading ${row.name} is damaged`)
  return row
}

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
        'SELECT finish, room_light FROM piece WHERE id = :piece',
        query,
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
        COALESCE((SELECT SUM(lot.left_ml) FROM lot WHERE lot.product_id = k.product_id), 0) AS left_ml
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

type About = Omit<z.infer<typeof c.measure>, 'name'>
async function insertReading(
  tx: Db,
  about: About & { name: string },
  spectrum: Spectrum,
  source: ReadingRow['source'],
  given: GivenLab | null,
  person: Person,
  at: Date,
): Promise<number> {
  const { id } = await tx.run(
    `INSERT INTO reading (
        piece_id, name, role, spectrum, given, clear_coat, gloss, species, zone, light_history, source, person_id,
        at
      )
        VALUES (
          :pieceId, :name, :role, :spectrum, :given, :clearCoat, :gloss, :species, :zone, :lightHistory, :source,
          :personId, :at
        )`,
    {
      ...about,
      spectrum: JSON.stringify(spectrum.map(v => round(v, 6))),
      given: given && JSON.stringify(given),
      source,
      personId: person.id,
      at,
    },
  )
  return id
}
async function record(tx: Db, pieceId: number | null, says: string, person: Person, at: Date) {
  await log(tx, { pieceId, kind: 'colour', says, at, recordedAt: at, personId: person.id })
  await tell(tx, pieceId ? 'piece' : 'store', pieceId, at)
}
/** Errors of core become refusals with the same words. */
const refused = <T>(work: () => T): T => {
  try {
    return work()
  } catch (error) {
    if (error instanceof RangeError) throw fail(422, 'invalid', error.message)
    throw error
  }
}
const labText = (s: Spectrum) =>
  labOfSpectrum(s)
    .map(v => v.toFixed(1))
    .join(', ')

/** A reading typed in: a spectrum, or CIELAB from which a plausible spectrum is made and marked so. */
export const addReading = (input: z.infer<typeof c.addReading>, person: Person, at: Date) =>
  transaction(async tx => {
    const like = input.likeId ? (await readReading(tx, input.likeId)).spectrum : undefined
    const spectrum =
      input.spectrum ??
      refused(() =>
        reconstruct([input.lab!.L, input.lab!.a, input.lab!.b], input.lab!.light, input.lab!.observer, like),
      )
    const id = await insertReading(tx, input, spectrum, 'typed', input.lab, person, at)
    await record(
      tx,
      input.pieceId,
      `Reading typed in: ${input.name}, L*a*b* ${labText(spectrum)}${input.lab ? '; from L*a*b* alone' : ''}`,
      person,
      at,
    )
    return { id, spectrum, lab: labOfSpectrum(spectrum) }
  })

/** One touch: the meter measures, the reading is kept. */
export async function measureReading(input: z.infer<typeof c.measure>, person: Person, at: Date) {
  const got = await measureSample(input.name)
  const spectrum = refused(() => spectrumFrom(got.wavelengths_nm, got.values))
  return transaction(async tx => {
    const id = await insertReading(tx, input, spectrum, 'meter', null, person, at)
    await record(
      tx,
      input.pieceId,
      `Measured: ${input.name}, L*a*b* ${labText(spectrum)}, meter ${got.meter}`,
      person,
      at,
    )
    return { id, spectrum, lab: labOfSpectrum(spectrum), meter: got.meter }
  })
}

/** Every sample of a CGATS or CSV file; a broken file changes nothing. */
export async function importReadings(input: z.infer<typeof c.importReadings>, person: Person, at: Date) {
  const samples = await refusedInWorker(inWorker('samples', input.text), 'text')
  return transaction(async tx => {
    const ids: number[] = []
    for (const s of samples) {
      const name = `${input.name ? `${input.name}: ` : ''}${s.name}`.slice(0, 120)
      ids.push(await insertReading(tx, { ...input, name }, s.spectrum, 'file', s.given, person, at))
    }
    await record(tx, input.pieceId, `${samples.length} readings from a file`, person, at)
    return { ids }
  })
}

/** Readings as a file: measured spectra, and CIELAB as it was given where that is all there is. */
export async function exportReadings(query: z.infer<typeof c.exportQuery>, at: Date): Promise<string> {
  const rows = await db().rows<ReadingRow>(`${READINGS} AND (:piece IS NULL OR r.piece_id = :piece) ORDER BY r.id`, {
    piece: query.piece ?? null,
  })
  const samples = withSpectrum(rows).map(({ given, ...r }): Sample => ({
    name: r.piece ? `${r.piece}, ${r.name}` : r.name,
    spectrum: given ? null : r.spectrum,
    lab: given && [given.L, given.a, given.b],
    light: given?.light ?? 'd65',
    observer: given?.observer ?? '10',
  }))
  return query.format === 'csv' ? writeSamplesCsv(samples) : writeCgats(samples, at.toISOString())
}

export const withdrawReading = (id: number, person: Person, at: Date) =>
  transaction(async tx => {
    const row = await tx.row<{ piece_id: number | null; name: string; used: number }>(
      `SELECT piece_id, name,
          EXISTS (
            SELECT 1
              FROM recipe
              WHERE :id IN (wood_id, sapwood_id, target_id)
          ) OR EXISTS (SELECT 1 FROM batch_try WHERE reading_id = :id)
            OR EXISTS (SELECT 1 FROM band WHERE reading_id = :id AND withdrawn_at IS NULL) AS used
          FROM reading
          WHERE id = :id AND withdrawn_at IS NULL`,
      { id },
    )
    if (!row) throw notFound('reading')
    if (row.used) throw fail(409, 'in-use', 'A recipe, a pot or a band rests on this reading; it stays.')
    await tx.run('UPDATE reading SET withdrawn_at = :at WHERE id = :id', { id, at })
    await record(tx, row.piece_id, `Reading withdrawn: ${row.name}`, person, at)
    return { ok: true }
  })

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

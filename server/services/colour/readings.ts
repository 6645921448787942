import type { z } from 'zod'
import {
  BANDS,
  type ClearCoat,
  type Gloss,
  innerOf,
  labOfSpectrum,
  type LightHistory,
  type Light,
  type Observer,
  reconstruct,
  spectrumFrom,
  type Spectrum,
  surfaceOf,
} from '#core/colour'
import { type Sample, writeCgats, writeSamplesCsv } from '#core/formats'
import { round } from '#core/units'
import type * as c from '#shared/colour'
import { db, type Db, transaction } from '../../database/db'
import { measureSample } from '../platform/instruments'
import { cannotRead } from '../platform/readable'
import type { Person } from '../shop/person'
import { type About, labText, record, refused } from './told'

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

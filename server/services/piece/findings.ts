import type { z } from 'zod'
import { FINDINGS, lineLength_mm, placeProblem, type Place } from '#core/piece'
import { saidSlug, VENEER_MM } from '#core/units'
import { speciesOf } from '#core/wood'
import type * as s from '#shared/schemas'
import { db, type Db } from '../../database/db'
import { overtakePlan } from '../client/overtake'
import type { Person } from '../shop/person'
import { readShop } from '../shop/rows'
import { lengthOf, onPiece } from './pieces'
import { faceOf, type FaceRow, type FindingRow, type PieceFile, placeOf } from './rows'

export const FINDING_OWNER = `SELECT part.piece_id
      FROM finding
      JOIN face ON face.id = finding.face_id
      JOIN part ON part.id = face.part_id
      WHERE finding.id = :id`

/** The piece that a row belongs to. @throws Fail 404. */
export async function ownerOf(sql: string, id: number, what: string): Promise<number> {
  const row = await db().row<{ piece_id: number }>(sql, { id })
  if (!row) throw notFound(what)
  return row.piece_id
}

function faceFor(file: PieceFile, faceId: number): FaceRow {
  const face = file.faces.find(f => f.id === faceId)
  if (!face) throw fail(422, 'invalid', 'This face is not on this piece.', { faceId: 'Choose a face of this piece.' })
  return face
}
function checkPlace(place: Place, face: FaceRow) {
  const problem = placeProblem(place, faceOf(face))
  if (problem) throw fail(422, 'invalid', problem, { place: problem })
}
const columns = (p: Place) => ({
  shape: p.shape,
  copy: p.copy,
  x: p.x_mm,
  y: p.y_mm,
  x2: p.x2_mm,
  y2: p.y2_mm,
  size: p.size_mm,
})

/** Where and how large, in words for the log. */
function placeWords(place: Place): string {
  switch (place.shape) {
    case 'unplaced':
      return 'not yet drawn'
    case 'face':
      return 'the whole face'
    case 'point':
      return `at ${Math.round(place.x_mm)}, ${Math.round(place.y_mm)} mm`
    case 'line':
      return `${Math.round(lineLength_mm(place))} mm long from ${Math.round(place.x_mm)}, ${Math.round(place.y_mm)}`
    case 'area':
      return (
        `${Math.round(Math.abs(place.x2_mm - place.x_mm))} × ${Math.round(Math.abs(place.y2_mm - place.y_mm))} ` +
        `mm at ${Math.round(Math.min(place.x_mm, place.x2_mm))}, ` +
        `${Math.round(Math.min(place.y_mm, place.y2_mm))}`
      )
  }
}

export async function insertFinding(
  tx: Db,
  f: { faceId: number; kind: string; grade: number; wish: string; note: string; place: Place },
): Promise<number> {
  const { id } = await tx.run(
    `INSERT INTO finding (face_id, kind, grade, wish, note, shape, copy_no, x_mm, y_mm, x2_mm, y2_mm, size_mm)
     VALUES (:faceId, :kind, :grade, :wish, :note, :shape, :copy, :x, :y, :x2, :y2, :size)`,
    { ...f, place: undefined, ...columns(f.place) },
  )
  return id
}

export const addFinding = (id: number, input: z.infer<typeof s.addFinding>, person: Person, at: Date) =>
  onPiece(id, at, person, async (tx, file) => {
    const face = faceFor(file, input.faceId)
    checkPlace(input.place, face)
    const made = await insertFinding(tx, input)
    return {
      kind: 'finding',
      says:
        `Found on ${face.part}, ${face.name}: ${saidSlug(input.kind)}, grade ${input.grade}, ${input.wish}, ` +
        `${placeWords(input.place)}`,
      result: { id: made },
    }
  })

async function linkPhotographs(tx: Db, pieceId: number, findingId: number, addresses: readonly string[]) {
  await tx.run('DELETE FROM finding_photograph WHERE finding_id = :findingId', { findingId })
  if (addresses.length)
    await tx.run(
      `INSERT INTO finding_photograph (finding_id, photograph_id) SELECT :findingId, id
          FROM photograph
          WHERE piece_id = :pieceId AND address IN (:addresses)`,
      { pieceId, findingId, addresses },
    )
}

/** Changes, moves, withdraws or puts back a finding; the log keeps what it was. */
export async function changeFinding(id: number, input: z.infer<typeof s.changeFinding>, person: Person, at: Date) {
  return onPiece(await ownerOf(FINDING_OWNER, id, 'finding'), at, person, async (tx, file) => {
    const old = (await tx.row<FindingRow>('SELECT * FROM finding WHERE id = :id', { id }))!
    if (old.row_version !== input.rowVersion) throw stale()
    const next = {
      faceId: input.faceId ?? old.face_id,
      kind: input.kind ?? old.kind,
      grade: input.grade ?? old.grade,
      wish: input.wish ?? old.wish,
      note: input.note ?? old.note,
      place: input.place ?? placeOf(old),
    }
    const face = faceFor(file, next.faceId)
    checkPlace(next.place, face)
    await tx.run(
      `UPDATE finding
          SET face_id = :faceId, kind = :kind, grade = :grade, wish = :wish, note = :note, shape = :shape,
            copy_no = :copy, x_mm = :x, y_mm = :y, x2_mm = :x2, y2_mm = :y2, size_mm = :size,
            withdrawn_at = CASE WHEN :withdrawn IS NULL THEN withdrawn_at WHEN :withdrawn THEN :at ELSE NULL END,
            row_version = row_version + 1
          WHERE id = :id`,
      { ...next, place: undefined, ...columns(next.place), withdrawn: input.withdrawn ?? null, at, id },
    )
    if (input.photographs) await linkPhotographs(tx, file.piece.id, id, input.photographs)
    const changed = () => {
      if (input.withdrawn !== undefined) return input.withdrawn ? 'withdrawn' : 'put back'
      if (input.place) return `now ${placeWords(next.place)}, was ${placeWords(placeOf(old))}`
      if (input.photographs) return `photographs linked: ${input.photographs.length}`
      return `now grade ${next.grade}, ${next.wish}${next.note ? `: ${next.note}` : ''}`
    }
    const what = changed()
    return {
      kind: 'finding',
      says: `Finding, ${saidSlug(next.kind)} on ${face.part}, ${face.name}: ${what}`,
      result: { rowVersion: old.row_version + 1 },
    }
  })
}

export async function withdrawFinding(id: number, person: Person, at: Date) {
  return onPiece(
    await ownerOf(`${FINDING_OWNER} AND withdrawn_at IS NULL`, id, 'finding'),
    at,
    person,
    async (tx, { findings }) => {
      await tx.run('UPDATE finding SET withdrawn_at = :at, row_version = row_version + 1 WHERE id = :id', { id, at })
      return {
        kind: 'finding',
        says: `Finding withdrawn: ${saidSlug(findings.find(f => f.id === id)?.kind ?? '')}`,
        result: { ok: true },
      }
    },
  )
}

/** Corrects what a face is made of, or which finish it carries. */
export async function changeFace(id: number, input: z.infer<typeof s.changeFace>, person: Person, at: Date) {
  return onPiece(
    await ownerOf('SELECT part.piece_id FROM face JOIN part ON part.id = face.part_id WHERE face.id = :id', id, 'face'),
    at,
    person,
    async (tx, { piece, faces }) => {
      const old = faces.find(f => f.id === id)!
      if (old.row_version !== input.rowVersion) throw stale()
      const substrate = input.substrate ?? old.substrate
      const veneer = input.veneer === undefined ? old.veneer_typed : input.veneer || null
      const typed = substrate === 'veneer' ? veneer : null
      const next = {
        species: input.species ?? old.species,
        substrate,
        veneer_typed: typed,
        veneer_mm: typed ? lengthOf(typed, (await readShop(tx)).length_unit, 'veneer', VENEER_MM) : null,
        film_um: input.filmUm === undefined ? old.film_um : input.filmUm,
        finish_group: input.finishGroup ?? old.finish_group,
      }
      await tx.run(
        `UPDATE face
            SET species = :species, substrate = :substrate, veneer_typed = :veneer_typed,
              veneer_mm = :veneer_mm, film_um = :film_um, finish_group = :finish_group,
              row_version = row_version + 1
            WHERE id = :id`,
        { ...next, id },
      )
      if (next.species !== old.species || substrate !== old.substrate || next.veneer_mm !== old.veneer_mm)
        await overtakePlan(tx, piece.id)
      return {
        kind: 'face',
        says:
          `${old.part}, ${old.name}: ${speciesOf(next.species).name}, ` +
          `${substrate}${typed ? ` ${typed}` : ''}, finish ` +
          `${next.finish_group} (was ${speciesOf(old.species).name}, ` +
          `${old.substrate}${old.veneer_typed ? ` ${old.veneer_typed}` : ''}, finish ${old.finish_group})` +
          (next.film_um === old.film_um
            ? ''
            : `, film ${next.film_um === null ? 'not measured' : `${next.film_um} µm`}`),
        result: { ok: true },
      }
    },
  )
}

/** Places a kind usually takes when it covers its face; else it is drawn later. */
export const firstPlace = (kind: keyof typeof FINDINGS): Place => ({
  shape: FINDINGS[kind].shape === 'face' ? 'face' : 'unplaced',
  copy: 0,
  x_mm: 0,
  y_mm: 0,
  x2_mm: 0,
  y2_mm: 0,
  size_mm: 0,
})

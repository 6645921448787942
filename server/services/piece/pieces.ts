import type { z } from 'zod'
import { coloursIn, finishLayer } from '#core/build'
import { overtakePlan } from '../client/overtake'
import { FINISH_OF_PIECE, FINISHING } from '../plan/buildUps'
import type { Finish } from '#core/materials'
import { isWooden, leadSuspected, type RouteSlug, wentHome } from '#core/piece'
import {
  faceArea_m2,
  isWithin,
  LENGTH_MM,
  MOST_AREA_M2,
  MOST_FACES,
  parseLength_mm,
  round,
  sumOf,
  VENEER_MM,
} from '#core/units'
import type * as s from '#shared/schemas'
import { db, type Db, transaction } from '../../database/db'
import { log, tell } from '../platform/log'
import type { Person } from '../shop/person'
import { readShop } from '../shop/rows'
import { keptOutlook, type Outlook } from './outlook'
import { readPiece } from './read'
import { faceArea, type FaceRow, type PieceFile, type PieceRow } from './rows'

/** A length as typed, in mm, a bare number in the shop's unit. @throws Fail 422 outside what a shop can hold. */
export function lengthOf(
  typed: string,
  unit: 'mm' | 'in',
  field: string,
  bounds: { least: number; most: number } = LENGTH_MM,
): number {
  const mm = parseLength_mm(typed, unit)
  if (!isWithin(mm, bounds)) {
    const says =
      `${typed}${unit === 'in' ? ' (bare numbers are inches here)' : ''} is outside ${bounds.least} mm to ` +
      `${bounds.most >= 1000 ? `${bounds.most / 1000} m` : `${bounds.most} mm`}.`
    throw fail(422, 'invalid', says, { [field]: says })
  }
  return mm
}

/** @throws Fail 422 when a piece has more faces, or more of them, than one plan can hold. */
async function checkSize(tx: Db, pieceId: number) {
  const faces = await tx.rows<Pick<FaceRow, 'shape' | 'length_mm' | 'width_mm' | 'copies'>>(
    `SELECT shape, length_mm, width_mm, copies
        FROM face
        JOIN part ON part.id = face.part_id
        WHERE part.piece_id = :pieceId`,
    { pieceId },
  )
  if (faces.length > MOST_FACES)
    throw fail(
      422,
      'too-many',
      `${faces.length} faces are more than one piece can hold (${MOST_FACES}). Take it in as several pieces.`,
    )
  const area = sumOf(faces, f => faceArea_m2({ ...f, count: f.copies }))
  if (area > MOST_AREA_M2)
    throw fail(
      422,
      'too-large',
      `${Math.round(area)} m² are more than one piece can hold (${MOST_AREA_M2} m²). Look at its sizes and ` +
        'counts, or take it in as several pieces.',
    )
}

async function insertParts(tx: Db, pieceId: number, parts: z.infer<typeof s.takeIn>['parts'], unit: 'mm' | 'in') {
  for (const part of parts) {
    const { id: partId } = await tx.run('INSERT INTO part (piece_id, name, scope) VALUES (:pieceId, :name, :scope)', {
      pieceId,
      ...part,
      faces: undefined,
    })
    for (const f of part.faces) {
      await tx.run(
        `INSERT INTO face (
            part_id, name, face_rank, shape, orientation, length_mm, length_typed, width_mm, width_typed, copies,
            species, substrate, veneer_mm, veneer_typed
          )
            VALUES (
              :partId, :name, :rank, :shape, :orientation, :length_mm, :length, :width_mm, :width, :count, :species,
              :substrate, :veneer_mm, :veneer
            )`,
        {
          ...f,
          partId,
          species: isWooden(f.substrate) ? f.species : 'unknown',
          length_mm: lengthOf(f.length, unit, 'length'),
          width_mm: lengthOf(f.width, unit, 'width'),
          veneer_mm: f.substrate === 'veneer' && f.veneer ? lengthOf(f.veneer, unit, 'veneer', VENEER_MM) : null,
          veneer: f.substrate === 'veneer' ? f.veneer || null : null,
        },
      )
    }
  }
  await checkSize(tx, pieceId)
}

export const takeIn = (input: z.infer<typeof s.takeIn>, person: Person, at: Date): Promise<{ id: number }> =>
  transaction(async tx => {
    const lead = input.lead === 'unknown' ? 'not known, counted as yes' : input.lead
    const says = `Taken in: ${input.name}, for ${input.client.name}. Lead: ${lead}.`
    return { id: await insertPiece(tx, input, { state: 'active', says }, person, at) }
  })

/** A new piece of a client, who is found or made. */
export async function insertPiece(
  tx: Db,
  input: z.infer<typeof s.takeIn>,
  { state, says }: { state: 'active' | 'enquiry'; says: string },
  person: Person,
  at: Date,
): Promise<number> {
  const { length_unit } = await readShop(tx)
  const chosen = input.client.id
    ? await tx.row<{ id: number }>('SELECT id FROM client WHERE id = :id AND merged_into IS NULL', {
        id: input.client.id,
      })
    : null
  if (input.client.id && !chosen)
    throw fail(422, 'invalid', 'There is no such client any more.', { 'client.name': 'Choose the client anew.' })
  const known =
    chosen ??
    (input.client.email
      ? await tx.row<{ id: number }>(
          'SELECT id FROM client WHERE name = :name AND email = :email AND merged_into IS NULL LIMIT 1',
          { name: input.client.name, email: input.client.email },
        )
      : null)
  const clientId =
    known?.id ??
    (
      await tx.run('INSERT INTO client (name, email, phone) VALUES (:name, :email, :phone)', {
        name: input.client.name,
        email: input.client.email,
        phone: input.client.phone,
      })
    ).id
  const { id } = await tx.run(
    `INSERT INTO piece (
          client_id, name, use_kind, tone, sheen, age_wish, due_on, period, refinished, keep_patina, rustic,
          lead_answer, note, taken_in_at, state
        )
          VALUES (
            :clientId, :name, :use, :tone, :sheen, :age, :dueOn, :period, :refinished, :keepPatina, :rustic,
            :lead, :note, :at, :state
          )`,
    { ...input, client: undefined, parts: undefined, clientId, at, state },
  )
  await insertParts(tx, id, input.parts, length_unit)
  await log(tx, {
    pieceId: id,
    kind: 'taken-in',
    says,
    at,
    recordedAt: at,
    personId: person.id,
  })
  await tell(tx, 'pieces', id, at)
  return id
}

/** Runs `change` on a locked piece that is still open, logs it and tells open pages. */
export async function onPiece<T>(
  id: number,
  at: Date,
  person: Person,
  change: (tx: Db, file: PieceFile) => Promise<{ says: string; kind: string; result: T }>,
): Promise<T> {
  return transaction(async tx => {
    const file = await readPiece(tx, id, true)
    if (wentHome(file.piece.state))
      throw fail(409, 'handed-over', 'This piece has been handed over; its record is closed.')
    const { says, kind, result } = await change(tx, file)
    await log(tx, { pieceId: id, kind, says, at, recordedAt: at, personId: person.id })
    await tell(tx, 'piece', id, at)
    return result
  })
}

export const addParts = (id: number, input: z.infer<typeof s.addParts>, person: Person, at: Date) =>
  onPiece(id, at, person, async tx => {
    await insertParts(tx, id, input.parts, (await readShop(tx)).length_unit)
    await overtakePlan(tx, id)
    return { kind: 'changed', says: `Parts added: ${input.parts.map(p => p.name).join(', ')}`, result: { ok: true } }
  })

/** How long a hand-over can be taken back. */
const TAKEN_BACK_MS = 86_400_000
/** May the hand-over of this piece still be taken back? */
export const mayTakeBack = (piece: PieceFile['piece'], at: Date): boolean =>
  wentHome(piece.state) &&
  piece.handed_over_at !== null &&
  at.getTime() - piece.handed_over_at.getTime() < TAKEN_BACK_MS

/** When it is ready with all else in the shop, in half of all lives of the schedule and in nine of ten. */
async function outlookOf(state: string, look: Outlook | null, id: number): Promise<Outlook | null> {
  if (state === 'active' && look?.likely_at) return { likely_at: look.likely_at, safe_at: look.safe_at }
  return keptOutlook(db(), id)
}

export async function piecePage(id: number, at: Date) {
  const { piece: row, faces, facts, concluded, choice } = await readPiece(db(), id)
  const { known_findings: _known, ...piece } = row
  const main = choice?.buildUps[0]
  const look = await db().row<{ risk: number | null; likely_at: Date | null; safe_at: Date | null }>(
    `SELECT risk, likely_at, safe_at
        FROM schedule_piece
        WHERE piece_id = :id AND schedule_id = (SELECT MAX(schedule_id) FROM schedule_piece)`,
    { id },
  )
  return {
    /** chance that it is late for the day it is promised for; null: none is, or it is not planned */
    risk: row.state === 'active' ? (look?.risk ?? null) : null,
    outlook: await outlookOf(row.state, look, id),
    piece: { ...piece, mayTakeBack: mayTakeBack(row, at) },
    /** the piece that it became when it came back */
    became:
      (await db().row<{ id: number }>('SELECT MAX(id) AS id FROM piece WHERE follows_id = :id', { id }))?.id ?? null,
    /** of the main build-up */
    route: main?.ground ?? null,
    finish: finishLayer(main?.layers ?? [])?.product ?? null,
    coloured: coloursIn(choice?.buildUps.flatMap(b => b.layers) ?? []).length > 0,
    faces: faces.map(f => ({ ...f, area_m2: round(faceArea(f), 4) })),
    area_m2: round(
      sumOf(
        faces.filter(f => f.scope === 'refinish'),
        faceArea,
      ),
      3,
    ),
    lead: facts.lead,
    leadSuspected: leadSuspected(facts.lead),
    found: facts.found,
    hazards: concluded.hazards
      .filter(h => h.standing !== 'cleared' && h.severity !== 'note')
      .map(h => ({ slug: h.slug, name: h.name })),
  }
}

export async function listPieces(query: z.infer<typeof s.pieceQuery>) {
  return db().rows<{
    id: number
    name: string
    client_name: string
    state: PieceRow['state']
    due_on: string | null
    route: RouteSlug | null
    finish: Finish | null
    taken_in_at: Date
    steps: number
    done: number
    thumb: string | null
    likely_at: Date | null
    safe_at: Date | null
    risk: number | null
  }>(
    `SELECT piece.id, piece.name, client.name AS client_name, piece.state, piece.due_on, piece.taken_in_at,
        look.likely_at, look.safe_at, look.risk,
        (SELECT ground FROM build_up WHERE piece_id = piece.id ORDER BY position LIMIT 1) AS route,
        ${FINISH_OF_PIECE} AS finish,
        (SELECT COUNT(*) FROM plan_step WHERE piece_id = piece.id AND state <> 'skipped') AS steps,
        (SELECT COUNT(*) FROM plan_step WHERE piece_id = piece.id AND state = 'done') AS done,
        (SELECT address FROM photograph WHERE piece_id = piece.id ORDER BY id LIMIT 1) AS thumb
        FROM piece
        JOIN client ON client.id = piece.client_id
        LEFT JOIN schedule_piece look ON look.piece_id = piece.id AND piece.state = 'active'
          AND look.schedule_id = (SELECT MAX(schedule_id) FROM schedule_piece)
        WHERE (:state = 'all' OR piece.state = :state)
          AND (
            :find = ''
            OR piece.name LIKE CONCAT('%', :like, '%')
            OR client.name LIKE CONCAT('%', :like, '%')
            OR piece.id = :number
          )
        ORDER BY piece.state, piece.due_on IS NULL, piece.due_on, piece.id
        LIMIT 500`,
    {
      ...query,
      finishing: FINISHING,
      like: query.find.replace(/[\\%_]/g, '\\$&'),
      number: /^\d{1,9}$/.test(query.find) ? Number(query.find) : 0,
    },
  )
}

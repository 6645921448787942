import type { Air } from '#core/air'
import type { Context } from '#core/context'
import { conclude, type Recorded } from '#core/examine'
import { houseOf } from '#core/house'
import type { Shelf } from '#core/materials'
import type { Facts } from '#core/piece'
import type { Db } from '../../database/db'
import { type BuildUpRow, choiceOfRows, type LayerRow } from '../plan/buildUps'
import { cannotRead, readable } from '../platform/readable'
import { type AirHours, readAirHours } from '../shop/airHours'
import { SHARED_ROOM } from '../shop/rows'
import { readShelf } from '../store/shelf'
import {
  type AnswerRow,
  type EvidenceRow,
  faceOf,
  type FaceRow,
  type FindingRow,
  type ItemRow,
  type MoistureRow,
  type OverruleRow,
  type PatchRow,
  type PieceFile,
  type PieceRow,
  type Pieces,
  placeOf,
  roomOf,
  type Rows,
  type TestRow,
  type Unreadable,
} from './rows'
import { strangeIn } from './strange'

const IN_WHERE = { one: 'piece.id = :id', active: "piece.state = 'active'" } as const
export type Which = { where: keyof typeof IN_WHERE; id?: number }

/** What was recorded, in the core's shape. */
function recordedOf({
  piece,
  faces,
  findings,
  tests,
  evidence,
  answers,
  moisture,
  items,
  patches,
  overrules,
}: Rows): Recorded {
  return {
    facts: {
      use: piece.use_kind,
      tone: piece.tone,
      sheen: piece.sheen,
      age: piece.age_wish,
      period: piece.period,
      refinished: piece.refinished,
      keepPatina: Boolean(piece.keep_patina),
      rustic: Boolean(piece.rustic),
      lead: piece.lead_answer,
      sample: piece.colour_sample,
      undecided: items
        .filter(i => i.kind === 'hardware' && i.state !== 'present' && i.answer === null)
        .map(i => i.name),
      marks: items.filter(i => i.kind === 'mark').map(i => i.name),
      faces: faces.map(faceOf),
      findings: findings.map(f => ({
        faceId: f.face_id,
        kind: f.kind,
        grade: f.grade,
        wish: f.wish,
        place: placeOf(f),
      })),
    },
    readings: tests.map(t => ({ test: t.test, result: t.result, group: t.finish_group, layer: t.layer })),
    answers: [...new Map(answers.map(a => [a.question, { key: a.question, options: a.options.split(',') }])).values()],
    evidence: Object.fromEntries(evidence.map(e => [e.kind, e.answer])),
    moisture: moisture.map(m => ({
      faceId: m.face_id,
      reading_pct: m.reading_pct,
      thickness_mm: m.thickness_mm,
      at_ms: m.at.getTime(),
      air:
        m.air_rh !== null && m.air_temperature_C !== null ? { temperature_C: m.air_temperature_C, rh: m.air_rh } : null,
    })),
    room: roomOf(piece),
    patches: patches.map(p => ({ ...p, faceId: p.face_id })),
    overruled: new Map(overrules.map(o => [`${o.rule}|${o.subject}`, o.value])),
  }
}

function byPiece<T extends { piece_id: number }>(rows: T[]): Map<number, T[]> {
  const map = new Map<number, T[]>()
  for (const row of rows) {
    const list = map.get(row.piece_id)
    if (list) list.push(row)
    else map.set(row.piece_id, [row])
  }
  return map
}

/** What is read for each piece besides itself; every query gives `piece_id`. */
const BELONGINGS = {
  faces: `SELECT face.*, part.piece_id, part.name AS part,
          IF(part.scope = 'refinish' AND face.substrate NOT IN ('solid','veneer'), 'other', part.scope) AS scope
        FROM face
        JOIN part ON part.id = face.part_id
        JOIN piece ON piece.id = part.piece_id
        WHERE {where}
        ORDER BY part.id, face.id`,
  findings: `SELECT finding.*, part.piece_id
      FROM finding
      JOIN face ON face.id = finding.face_id
      JOIN part ON part.id = face.part_id
      JOIN piece ON piece.id = part.piece_id
      WHERE {where} AND finding.withdrawn_at IS NULL
      ORDER BY finding.id`,
  tests: `SELECT t.id, t.piece_id, t.test, t.result, t.spot, t.finish_group, t.layer, t.at, person.name AS by_name
      FROM finish_test t
      JOIN piece ON piece.id = t.piece_id
      JOIN person ON person.id = t.person_id
      WHERE {where} AND t.withdrawn_at IS NULL
      ORDER BY t.id`,
  evidence: `SELECT e.piece_id, e.kind, e.answer, e.method, e.at, person.name AS by_name
        FROM evidence e
        JOIN piece ON piece.id = e.piece_id
        JOIN person ON person.id = e.person_id
        WHERE {where}
        ORDER BY e.id`,
  answers: `SELECT w.piece_id, w.question, w.options, w.at, person.name AS by_name
        FROM walk_answer w
        JOIN piece ON piece.id = w.piece_id
        JOIN person ON person.id = w.person_id
        WHERE {where}
        ORDER BY w.id`,
  moisture: `SELECT m.face_id, m.reading_pct, m.thickness_mm, m.air_temperature_C, m.air_rh, m.at, part.piece_id,
      person.name AS by_name
      FROM moisture_reading m
      JOIN face ON face.id = m.face_id
      JOIN part ON part.id = face.part_id
      JOIN piece ON piece.id = part.piece_id
      JOIN person ON person.id = m.person_id
      WHERE {where}
      ORDER BY m.at, m.id`,
  items: `SELECT item.*, place.code AS place, place.kind AS place_kind
        FROM item
        JOIN piece ON piece.id = item.piece_id
        LEFT JOIN place ON place.id = item.place_id
        WHERE {where}
        ORDER BY item.id`,
  patches: `SELECT p.face_id, p.method, p.length_mm, p.width_mm, p.minutes, p.result, p.note, p.at, part.piece_id,
      person.name AS by_name
      FROM patch p
      JOIN face ON face.id = p.face_id
      JOIN part ON part.id = face.part_id
      JOIN piece ON piece.id = part.piece_id
      JOIN person ON person.id = p.person_id
      WHERE {where}
      ORDER BY p.id`,
  buildUps: `SELECT b.*,
        (SELECT GROUP_CONCAT(face_id ORDER BY face_id) FROM build_up_face WHERE build_up_id = b.id) AS faces
      FROM build_up b
      JOIN piece ON piece.id = b.piece_id
      WHERE {where}
      ORDER BY b.position`,
  layers: `SELECT l.*, b.piece_id,
        (SELECT GROUP_CONCAT(face_id ORDER BY face_id) FROM layer_face WHERE layer_id = l.id) AS faces,
        (SELECT MAX(id) FROM product_label WHERE product_id = l.product_id) AS label
      FROM layer l
      JOIN build_up b ON b.id = l.build_up_id
      JOIN piece ON piece.id = b.piece_id
      WHERE {where}
      ORDER BY b.position, l.position, l.id`,
  overrules: `SELECT o.piece_id, o.rule, o.step_key AS subject, o.value, o.word, o.at, person.name AS by_name
      FROM overrule o
      JOIN piece ON piece.id = o.piece_id
      JOIN person ON person.id = o.person_id
      WHERE {where} AND o.about = 'examination'
      ORDER BY o.id`,
} as const

/** Pieces with all that is known about them, in a dozen queries however many there are. */
export async function readPieces(on: Db, which: Which, lock = false): Promise<Pieces> {
  const where = IN_WHERE[which.where]
  const params = { id: which.id ?? 0 }
  const pieces = await on.rows<PieceRow>(
    `SELECT piece.*, (SELECT JSON_OBJECTAGG(slug, choice) FROM house_method) AS shop_house,
        (${SHARED_ROOM}) AS one_room,
        (SELECT code FROM place WHERE place.id = piece.place_id) AS place,
        (
          SELECT JSON_ARRAYAGG(JSON_OBJECT('kind', kind, 'valid_until', valid_until))
            FROM licence
            JOIN person ON person.id = licence.person_id AND person.active
            WHERE licence.withdrawn_at IS NULL
        ) AS licences,
        client.name AS client_name, client.email AS client_email, client.phone AS client_phone
        FROM piece
        JOIN client ON client.id = piece.client_id
        WHERE ${where}
        ORDER BY piece.id ${lock ? 'FOR UPDATE' : ''}`,
    params,
  )
  if (pieces.length === 0) return { files: [], unreadable: [] }
  const read = async <T extends { piece_id: number }>(what: keyof typeof BELONGINGS) => {
    const rows = byPiece(await on.rows<T>(BELONGINGS[what].replace('{where}', where), params))
    return (piece: PieceRow): T[] => rows.get(piece.id) ?? []
  }
  const faces = await read<FaceRow>('faces')
  const findings = await read<FindingRow>('findings')
  const tests = await read<TestRow>('tests')
  const evidence = await read<EvidenceRow>('evidence')
  const answers = await read<AnswerRow>('answers')
  const moisture = await read<MoistureRow>('moisture')
  const items = await read<ItemRow>('items')
  const patches = await read<PatchRow>('patches')
  const overrules = await read<OverruleRow>('overrules')
  const buildUps = await read<BuildUpRow>('buildUps')
  const layers = await read<LayerRow>('layers')
  const shelf = await readShelf(on)
  const airHours = await readAirHours(on)
  const found: Pieces = { files: [], unreadable: [] }
  const inTurns = turns()
  for (const piece of pieces) {
    const rows: Rows = {
      piece,
      faces: faces(piece),
      findings: findings(piece),
      tests: tests(piece),
      evidence: evidence(piece),
      answers: answers(piece),
      moisture: moisture(piece),
      items: items(piece),
      patches: patches(piece),
      overrules: overrules(piece),
      buildUps: buildUps(piece),
      layers: layers(piece),
    }
    const known = fileOf(rows, shelf, airHours)
    if ('why' in known) found.unreadable.push(known)
    else found.files.push(known)
    await inTurns()
  }
  return found
}

function fileOf(rows: Rows, shelf: Shelf, airHours: AirHours): PieceFile | Unreadable {
  const { id, name } = rows.piece
  const strange = strangeIn(rows)
  if (strange) return { id, name, why: strange }
  return readable(id, name, () => {
    const recorded = recordedOf(rows)
    const concluded = conclude(recorded)
    const { facts } = concluded
    const choice = choiceOfRows(rows.buildUps, rows.layers)
    const context = contextOf(rows.piece, facts, shelf, airHours.ahead)
    return { ...rows, recorded, concluded, facts, context, choice, airHours }
  })
}

const contextOf = (piece: PieceRow, facts: Facts, shelf: Shelf, air: Air): Context => ({
  facts,
  house: houseOf({ ...parsed(piece.shop_house), ...parsed(piece.house) }),
  shelf,
  air,
})
/** JSON that came from a column, or as text from a function; what is no record counts as nothing. */
function parsed(value: unknown): Record<string, string> {
  const found: unknown = typeof value === 'string' ? JSON.parse(value) : value
  return typeof found === 'object' && found !== null && !Array.isArray(found) ? (found as Record<string, string>) : {}
}

/** One piece. @throws Fail 404, or 409 when something stored of it cannot be understood. */
export async function readPiece(on: Db, id: number, lock = false): Promise<PieceFile> {
  const {
    files: [file],
    unreadable: [strange],
  } = await readPieces(on, { where: 'one', id }, lock)
  if (strange) throw cannotRead(strange.why)
  if (!file) throw notFound('piece')
  return file
}

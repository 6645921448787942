import type { z } from 'zod'
import type { OwnWay, RouteSlug } from '#core/build'
import type { Light } from '#core/colour'
import { type Concluded, conclude, type PatchMethod, type PatchResult, type Recorded } from '#core/examine'
import type { TestSlug } from '#core/identify'
import type { Colour, Finish } from '#core/materials'
import type { Holes, ItemAnswer, ItemState, PlaceKind } from '#core/parts'
import { type Face, type Facts, type Finding, leadSuspected, type Period, type PlaceShape } from '#core/piece'
import {
  faceArea_m2,
  isWithin,
  LENGTH_MM,
  MOST_AREA_M2,
  MOST_FACES,
  parseLength_mm,
  round,
  type Shape,
  sumOf,
  VENEER_MM,
} from '#core/units'
import type { Room } from '#core/wood'
import type * as s from '#shared/schemas'
import { db, type Db, transaction } from '../database/db'
import type { Person } from './people'
import { cannotRead, readable, strangeIn } from './readable'
import { log, tell } from './record'
import { readShop } from './shop'

export interface PieceRow {
  id: number
  client_id: number
  name: string
  use_kind: Facts['use']
  tone: Facts['tone']
  sheen: Facts['sheen']
  age_wish: Facts['age']
  due_on: string | null
  period: Period
  refinished: 'yes' | 'no' | 'unknown'
  keep_patina: 0 | 1
  lead_answer: 'yes' | 'no' | 'unknown'
  note: string
  state: 'active' | 'ready' | 'handed-over'
  route: RouteSlug | null
  finish: Finish | null
  colour: Colour | null
  conditioner: string | null
  accepted_worst_minor: number | null
  agreed_minor: number | null
  room_dry_rh: number | null
  room_humid_rh: number | null
  room_light: Light | null
  fill: string
  bleach: string
  film_um: number | null
  colour_sample: Facts['sample']
  house: Record<string, string> | null
  shop_house: Record<string, string> | string | null
  taken_in_at: Date
  handed_over_at: Date | null
  row_version: number
  client_name: string
  client_email: string
  client_phone: string
}
export interface FaceRow {
  id: number
  piece_id: number
  part_id: number
  part: string
  scope: Face['scope']
  name: string
  face_rank: Face['rank']
  shape: Shape
  orientation: Face['orientation']
  length_mm: number
  length_typed: string
  width_mm: number
  width_typed: string
  copies: number
  species: string
  substrate: Face['substrate']
  veneer_mm: number | null
  veneer_typed: string | null
  finish_group: string
  row_version: number
}
export interface FindingRow {
  id: number
  piece_id: number
  face_id: number
  kind: Finding['kind']
  grade: number
  wish: Finding['wish']
  note: string
  shape: PlaceShape
  copy_no: number
  x_mm: number
  y_mm: number
  x2_mm: number
  y2_mm: number
  size_mm: number
  row_version: number
}
export interface TestRow {
  id: number
  piece_id: number
  test: TestSlug
  result: string
  spot: string
  finish_group: string
  layer: number
  at: Date
  by_name: string
}
export interface EvidenceRow {
  piece_id: number
  kind: string
  answer: 'yes' | 'no'
  method: string
  at: Date
  by_name: string
}
export interface AnswerRow {
  piece_id: number
  question: string
  options: string
  at: Date
  by_name: string
}
export interface MoistureRow {
  piece_id: number
  face_id: number
  reading_pct: number
  thickness_mm: number
  air_temperature_C: number | null
  air_rh: number | null
  at: Date
  by_name: string
}
export interface ItemRow {
  id: number
  piece_id: number
  mark: string
  name: string
  kind: 'part' | 'hardware' | 'mark'
  count: number
  taken_out: number | null
  put_back: number | null
  state: ItemState
  set_name: string
  place: string | null
  place_kind: PlaceKind | null
  holes: Holes | null
  note: string
  answer: ItemAnswer | null
  row_version: number
}
export interface PatchRow {
  piece_id: number
  face_id: number
  method: PatchMethod
  length_mm: number
  width_mm: number
  minutes: number
  result: PatchResult
  note: string
  at: Date
  by_name: string
}
/** Faces that go their own way; `faces` as a list of numbers in text. */
export interface WayRow extends Omit<OwnWay, 'faces'> {
  id: number
  piece_id: number
  faces: string
}
export interface OverruleRow {
  piece_id: number
  rule: string
  subject: string
  value: string | null
  word: string
  at: Date
  by_name: string
}

const IN_WHERE = { one: 'piece.id = :id', active: "piece.state = 'active'" } as const
export type Which = { where: keyof typeof IN_WHERE; id?: number }

export interface PieceFile {
  piece: PieceRow
  faces: FaceRow[]
  findings: FindingRow[]
  tests: TestRow[]
  evidence: EvidenceRow[]
  answers: AnswerRow[]
  moisture: MoistureRow[]
  items: ItemRow[]
  patches: PatchRow[]
  overrules: OverruleRow[]
  ways: WayRow[]
  recorded: Recorded
  concluded: Concluded
  facts: Facts
}

export const faceArea = (f: FaceRow): number =>
  faceArea_m2({ shape: f.shape, length_mm: f.length_mm, width_mm: f.width_mm, count: f.copies })
export const placeOf = (f: FindingRow) => ({
  shape: f.shape,
  copy: f.copy_no,
  x_mm: f.x_mm,
  y_mm: f.y_mm,
  x2_mm: f.x2_mm,
  y2_mm: f.y2_mm,
  size_mm: f.size_mm,
})
export const faceOf = (f: FaceRow): Face => ({
  id: f.id,
  part: f.part,
  name: f.name,
  scope: f.scope,
  rank: f.face_rank,
  shape: f.shape,
  orientation: f.orientation,
  length_mm: f.length_mm,
  width_mm: f.width_mm,
  copies: f.copies,
  area_m2: faceArea(f),
  species: f.species,
  substrate: f.substrate,
  veneer_mm: f.veneer_mm,
  finishGroup: f.finish_group,
})
export const roomOf = (p: PieceRow): Room | null =>
  p.room_dry_rh !== null && p.room_humid_rh !== null
    ? { temperature_C: 21, dryRh: p.room_dry_rh, humidRh: p.room_humid_rh }
    : null

type Rows = Omit<PieceFile, 'recorded' | 'concluded' | 'facts'>

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
  faces: `SELECT face.*, part.piece_id, part.name AS part, part.scope
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
  ways: `SELECT w.*, (SELECT GROUP_CONCAT(face_id ORDER BY face_id) FROM own_way_face WHERE way_id = w.id) AS faces
      FROM own_way w
      JOIN piece ON piece.id = w.piece_id
      WHERE {where}
      ORDER BY w.id`,
  overrules: `SELECT o.piece_id, o.rule, o.step_key AS subject, o.value, o.word, o.at, person.name AS by_name
      FROM overrule o
      JOIN piece ON piece.id = o.piece_id
      JOIN person ON person.id = o.person_id
      WHERE {where} AND o.about = 'examination'
      ORDER BY o.id`,
} as const

/** A piece of which something stored cannot be understood. It is told as such and holds up no other. */
export interface Unreadable {
  id: number
  name: string
  why: string
}
export interface Pieces {
  files: PieceFile[]
  unreadable: Unreadable[]
}

/** Pieces with all that is known about them, in eleven queries however many there are. */
export async function readPieces(on: Db, which: Which, lock = false): Promise<Pieces> {
  const where = IN_WHERE[which.where]
  const params = { id: which.id ?? 0 }
  const pieces = await on.rows<PieceRow>(
    `SELECT piece.*, (SELECT JSON_OBJECTAGG(slug, choice) FROM house_method) AS shop_house,
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
  const ways = await read<WayRow>('ways')
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
      ways: ways(piece),
    }
    const known = fileOf(rows)
    if ('why' in known) found.unreadable.push(known)
    else found.files.push(known)
    await inTurns()
  }
  return found
}

function fileOf(rows: Rows): PieceFile | Unreadable {
  const { id, name } = rows.piece
  const strange = strangeIn(rows)
  if (strange) return { id, name, why: strange }
  return readable(id, name, () => {
    const recorded = recordedOf(rows)
    const concluded = conclude(recorded)
    return { ...rows, recorded, concluded, facts: concluded.facts }
  })
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

export async function takeIn(input: z.infer<typeof s.takeIn>, person: Person, at: Date): Promise<{ id: number }> {
  return transaction(async tx => {
    const { length_unit } = await readShop(tx)
    const known = input.client.email
      ? await tx.row<{ id: number }>(
          'SELECT id FROM client WHERE name = :name AND email = :email LIMIT 1',
          input.client,
        )
      : null
    const clientId =
      known?.id ??
      (await tx.run('INSERT INTO client (name, email, phone) VALUES (:name, :email, :phone)', input.client)).id
    const { id } = await tx.run(
      `INSERT INTO piece (
          client_id, name, use_kind, tone, sheen, age_wish, due_on, period, refinished, keep_patina, lead_answer,
          note, taken_in_at
        )
          VALUES (
            :clientId, :name, :use, :tone, :sheen, :age, :dueOn, :period, :refinished, :keepPatina, :lead, :note,
            :at
          )`,
      { ...input, client: undefined, parts: undefined, clientId, at },
    )
    await insertParts(tx, id, input.parts, length_unit)
    await log(tx, {
      pieceId: id,
      kind: 'taken-in',
      says:
        `Taken in: ${input.name}, for ${input.client.name}. Lead: ` +
        `${input.lead === 'unknown' ? 'not known, counted as yes' : input.lead}.`,
      at,
      recordedAt: at,
      personId: person.id,
    })
    await tell(tx, 'pieces', id, at)
    return { id }
  })
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
    if (file.piece.state === 'handed-over')
      throw fail(409, 'handed-over', 'This piece has been handed over; its record is closed.')
    const { says, kind, result } = await change(tx, file)
    await log(tx, { pieceId: id, kind, says, at, recordedAt: at, personId: person.id })
    await tell(tx, 'piece', id, at)
    return result
  })
}

const COLUMNS: Record<string, string> = {
  name: 'name',
  use: 'use_kind',
  tone: 'tone',
  sheen: 'sheen',
  age: 'age_wish',
  dueOn: 'due_on',
  period: 'period',
  refinished: 'refinished',
  keepPatina: 'keep_patina',
  lead: 'lead_answer',
  note: 'note',
  roomDryRh: 'room_dry_rh',
  roomHumidRh: 'room_humid_rh',
  colourSample: 'colour_sample',
  roomLight: 'room_light',
}

export async function changePiece(id: number, input: z.infer<typeof s.pieceChange>, person: Person, at: Date) {
  const { rowVersion, ...changes } = input
  const given = Object.entries(changes).filter(([, value]) => value !== undefined)
  return onPiece(id, at, person, async (tx, { piece }) => {
    if (piece.row_version !== rowVersion) throw stale()
    const sets = given.map(([key]) => `${COLUMNS[key]} = :${key}`)
    await tx.run(`UPDATE piece SET ${[...sets, 'row_version = row_version + 1'].join(', ')} WHERE id = :id`, {
      ...changes,
      id,
    })
    return {
      kind: 'changed',
      says: `Changed: ${given.map(([key, value]) => `${key} ${String(value)}`).join(', ') || 'nothing'}`,
      result: { ok: true },
    }
  })
}

export const addParts = (id: number, input: z.infer<typeof s.addParts>, person: Person, at: Date) =>
  onPiece(id, at, person, async tx => {
    await insertParts(tx, id, input.parts, (await readShop(tx)).length_unit)
    return { kind: 'changed', says: `Parts added: ${input.parts.map(p => p.name).join(', ')}`, result: { ok: true } }
  })

export async function piecePage(id: number) {
  const { piece, faces, facts, concluded } = await readPiece(db(), id)
  return {
    piece,
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
  }>(
    `SELECT piece.id, piece.name, client.name AS client_name, piece.state, piece.due_on, piece.route,
        piece.finish, piece.taken_in_at,
        (SELECT COUNT(*) FROM plan_step WHERE piece_id = piece.id AND state <> 'skipped') AS steps,
        (SELECT COUNT(*) FROM plan_step WHERE piece_id = piece.id AND state = 'done') AS done,
        (SELECT address FROM photograph WHERE piece_id = piece.id ORDER BY id LIMIT 1) AS thumb
        FROM piece
        JOIN client ON client.id = piece.client_id
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
      like: query.find.replace(/[\\%_]/g, '\\$&'),
      number: /^\d{1,9}$/.test(query.find) ? Number(query.find) : 0,
    },
  )
}

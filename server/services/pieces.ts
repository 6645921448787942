import type { z } from 'zod'
import { identify, nextTests, prior, reasonsFor, type Observation, type Period } from '#core/identify'
import type { Face, Facts, Finding } from '#core/plan'
import { leadSuspected } from '#core/safety'
import { faceArea_m2, parseLength_mm, round, sumOf, type Shape } from '#core/units'
import type * as s from '#shared/schemas'
import { db, transaction, type Db } from '../database/db'
import type { Person } from './people'
import { log, tell } from './record'
import { readShop } from './shop'

export interface PieceRow {
  id: number, client_id: number, name: string, use_kind: Facts['use'], tone: Facts['tone'], sheen: Facts['sheen'], age_wish: Facts['age'], due_on: string | null, period: Period
  refinished: 'yes' | 'no' | 'unknown', keep_patina: 0 | 1, lead_answer: 'yes' | 'no' | 'unknown', note: string, state: 'active' | 'ready' | 'handed-over'
  route: string | null, finish: string | null, colour: string | null, conditioner: string | null, accepted_worst_minor: number | null, agreed_minor: number | null
  taken_in_at: Date, handed_over_at: Date | null, row_version: number, client_name: string, client_email: string, client_phone: string
}
interface FaceRow { id: number, piece_id: number, part_id: number, part: string, scope: Face['scope'], name: string, face_rank: Face['rank'], shape: Shape, orientation: Face['orientation'], length_mm: number, length_typed: string, width_mm: number, width_typed: string, copies: number, species: string, substrate: Face['substrate'], veneer_mm: number | null, veneer_typed: string | null }
interface FindingRow { id: number, piece_id: number, face_id: number, kind: Finding['kind'], grade: number, wish: Finding['wish'], note: string }
interface TestRow { id: number, piece_id: number, test: string, result: string, spot: string, at: Date, by_name: string }
interface EvidenceRow { piece_id: number, answer: 'yes' | 'no', method: string, at: Date, by_name: string }

const IN_WHERE = { one: 'piece.id = :id', active: 'piece.state = \'active\'' } as const
export type Which = { where: keyof typeof IN_WHERE, id?: number }

export interface PieceFile { piece: PieceRow, faces: FaceRow[], findings: FindingRow[], tests: TestRow[], evidence: EvidenceRow[], facts: Facts }

export const faceArea = (f: FaceRow): number => faceArea_m2({ shape: f.shape, length_mm: f.length_mm, width_mm: f.width_mm, count: f.copies })

const observations = (tests: readonly TestRow[]): Observation[] => [...new Map(tests.map(t => [t.test, { test: t.test, result: t.result }])).values()]

function factsOf(piece: PieceRow, faces: FaceRow[], findings: FindingRow[], tests: TestRow[], evidence: EvidenceRow[]): Facts {
  const seen = observations(tests)
  const found = seen.length ? identify(prior(piece.period, piece.refinished), seen) : null
  return {
    use: piece.use_kind, tone: piece.tone, sheen: piece.sheen, age: piece.age_wish, period: piece.period, keepPatina: Boolean(piece.keep_patina),
    lead: evidence.at(-1)?.answer ?? piece.lead_answer,
    found: found ? { finish: found.finish, certainty: found.certainty } : null,
    faces: faces.map(f => ({ id: f.id, part: f.part, name: f.name, scope: f.scope, rank: f.face_rank, shape: f.shape, orientation: f.orientation, area_m2: faceArea(f), species: f.species, substrate: f.substrate, veneer_mm: f.veneer_mm })),
    findings: findings.map(f => ({ faceId: f.face_id, kind: f.kind, grade: f.grade, wish: f.wish })),
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

/** Pieces with all that is known about them, in five queries however many there are. */
export async function readPieces(on: Db, which: Which, lock = false): Promise<PieceFile[]> {
  const where = IN_WHERE[which.where]
  const params = { id: which.id ?? 0 }
  const pieces = await on.rows<PieceRow>(
    `SELECT piece.*, client.name AS client_name, client.email AS client_email, client.phone AS client_phone
       FROM piece JOIN client ON client.id = piece.client_id WHERE ${where} ORDER BY piece.id ${lock ? 'FOR UPDATE' : ''}`, params)
  if (pieces.length === 0) return []
  const faces = byPiece(await on.rows<FaceRow>(
    `SELECT face.*, part.piece_id, part.name AS part, part.scope FROM face JOIN part ON part.id = face.part_id JOIN piece ON piece.id = part.piece_id WHERE ${where} ORDER BY part.id, face.id`, params))
  const findings = byPiece(await on.rows<FindingRow>(
    `SELECT finding.*, part.piece_id FROM finding JOIN face ON face.id = finding.face_id JOIN part ON part.id = face.part_id JOIN piece ON piece.id = part.piece_id
      WHERE ${where} AND finding.withdrawn_at IS NULL ORDER BY finding.id`, params))
  const tests = byPiece(await on.rows<TestRow>(
    `SELECT t.id, t.piece_id, t.test, t.result, t.spot, t.at, person.name AS by_name FROM finish_test t JOIN piece ON piece.id = t.piece_id JOIN person ON person.id = t.person_id
      WHERE ${where} AND t.withdrawn_at IS NULL ORDER BY t.id`, params))
  const evidence = byPiece(await on.rows<EvidenceRow>(
    `SELECT e.piece_id, e.answer, e.method, e.at, person.name AS by_name FROM evidence e JOIN piece ON piece.id = e.piece_id JOIN person ON person.id = e.person_id WHERE ${where} ORDER BY e.id`, params))
  return pieces.map((piece) => {
    const of = <T extends { piece_id: number }>(map: Map<number, T[]>) => map.get(piece.id) ?? []
    const [f, g, t, e] = [of(faces), of(findings), of(tests), of(evidence)]
    return { piece, faces: f, findings: g, tests: t, evidence: e, facts: factsOf(piece, f, g, t, e) }
  })
}

/** One piece. @throws Fail 404. */
export async function readPiece(on: Db, id: number, lock = false): Promise<PieceFile> {
  const [file] = await readPieces(on, { where: 'one', id }, lock)
  if (!file) throw notFound('piece')
  return file
}

async function insertParts(tx: Db, pieceId: number, parts: z.infer<typeof s.takeIn>['parts'], unit: 'mm' | 'in') {
  for (const part of parts) {
    const { id: partId } = await tx.run('INSERT INTO part (piece_id, name, scope) VALUES (:pieceId, :name, :scope)', { pieceId, ...part, faces: undefined })
    for (const f of part.faces) {
      await tx.run(
        `INSERT INTO face (part_id, name, face_rank, shape, orientation, length_mm, length_typed, width_mm, width_typed, copies, species, substrate, veneer_mm, veneer_typed)
         VALUES (:partId, :name, :rank, :shape, :orientation, :length_mm, :length, :width_mm, :width, :count, :species, :substrate, :veneer_mm, :veneer)`,
        { ...f, partId, length_mm: parseLength_mm(f.length, unit), width_mm: parseLength_mm(f.width, unit), veneer_mm: f.substrate === 'veneer' && f.veneer ? parseLength_mm(f.veneer, unit) : null, veneer: f.substrate === 'veneer' ? f.veneer || null : null })
    }
  }
}

export async function takeIn(input: z.infer<typeof s.takeIn>, person: Person, at: Date): Promise<{ id: number }> {
  return transaction(async (tx) => {
    const { length_unit } = await readShop(tx)
    const known = input.client.email ? await tx.row<{ id: number }>('SELECT id FROM client WHERE name = :name AND email = :email LIMIT 1', input.client) : null
    const clientId = known?.id ?? (await tx.run('INSERT INTO client (name, email, phone) VALUES (:name, :email, :phone)', input.client)).id
    const { id } = await tx.run(
      `INSERT INTO piece (client_id, name, use_kind, tone, sheen, age_wish, due_on, period, refinished, keep_patina, lead_answer, note, taken_in_at)
       VALUES (:clientId, :name, :use, :tone, :sheen, :age, :dueOn, :period, :refinished, :keepPatina, :lead, :note, :at)`, { ...input, client: undefined, parts: undefined, clientId, at })
    await insertParts(tx, id, input.parts, length_unit)
    await log(tx, { pieceId: id, kind: 'taken-in', says: `Taken in: ${input.name}, for ${input.client.name}. Lead: ${input.lead === 'unknown' ? 'not known, counted as yes' : input.lead}.`, at, recordedAt: at, personId: person.id })
    await tell(tx, 'pieces', id, at)
    return { id }
  })
}

/** Runs `change` on a locked piece that is still open, logs it and tells open pages. */
export async function onPiece<T>(id: number, at: Date, person: Person, change: (tx: Db, file: PieceFile) => Promise<{ says: string, kind: string, result: T }>): Promise<T> {
  return transaction(async (tx) => {
    const file = await readPiece(tx, id, true)
    if (file.piece.state === 'handed-over') throw fail(409, 'handed-over', 'This piece has been handed over; its record is closed.')
    const { says, kind, result } = await change(tx, file)
    await log(tx, { pieceId: id, kind, says, at, recordedAt: at, personId: person.id })
    await tell(tx, 'piece', id, at)
    return result
  })
}

const COLUMNS: Record<string, string> = { name: 'name', use: 'use_kind', tone: 'tone', sheen: 'sheen', age: 'age_wish', dueOn: 'due_on', period: 'period', refinished: 'refinished', keepPatina: 'keep_patina', lead: 'lead_answer', note: 'note' }

export async function changePiece(id: number, input: z.infer<typeof s.pieceChange>, person: Person, at: Date) {
  const { rowVersion, ...changes } = input
  const given = Object.entries(changes).filter(([, value]) => value !== undefined)
  return onPiece(id, at, person, async (tx, { piece }) => {
    if (piece.row_version !== rowVersion) throw stale()
    const sets = given.map(([key]) => `${COLUMNS[key]} = :${key}`)
    await tx.run(`UPDATE piece SET ${[...sets, 'row_version = row_version + 1'].join(', ')} WHERE id = :id`, { ...changes, id })
    return { kind: 'changed', says: `Changed: ${given.map(([key, value]) => `${key} ${String(value)}`).join(', ') || 'nothing'}`, result: { ok: true } }
  })
}

export const addParts = (id: number, input: z.infer<typeof s.addParts>, person: Person, at: Date) => onPiece(id, at, person, async (tx) => {
  await insertParts(tx, id, input.parts, (await readShop(tx)).length_unit)
  return { kind: 'changed', says: `Parts added: ${input.parts.map(p => p.name).join(', ')}`, result: { ok: true } }
})

export const addFinding = (id: number, input: z.infer<typeof s.addFinding>, person: Person, at: Date) => onPiece(id, at, person, async (tx, { faces }) => {
  const face = faces.find(f => f.id === input.faceId)
  if (!face) throw fail(422, 'invalid', 'This face is not on this piece.', { faceId: 'Choose a face of this piece.' })
  const made = await tx.run('INSERT INTO finding (face_id, kind, grade, wish, note) VALUES (:faceId, :kind, :grade, :wish, :note)', input)
  return { kind: 'finding', says: `Found on ${face.part}, ${face.name}: ${input.kind}, grade ${input.grade}, ${input.wish}`, result: { id: made.id } }
})

const ownerOf = async (sql: string, id: number, what: string) => {
  const row = await db().row<{ piece_id: number }>(sql, { id })
  if (!row) throw notFound(what)
  return row.piece_id
}
export async function withdrawFinding(id: number, person: Person, at: Date) {
  const pieceId = await ownerOf('SELECT part.piece_id FROM finding JOIN face ON face.id = finding.face_id JOIN part ON part.id = face.part_id WHERE finding.id = :id AND withdrawn_at IS NULL', id, 'finding')
  return onPiece(pieceId, at, person, async (tx, { findings }) => {
    await tx.run('UPDATE finding SET withdrawn_at = :at WHERE id = :id', { id, at })
    return { kind: 'finding', says: `Finding withdrawn: ${findings.find(f => f.id === id)?.kind ?? ''}`, result: { ok: true } }
  })
}
export const addTest = (id: number, input: z.infer<typeof s.addTest>, person: Person, at: Date) => onPiece(id, at, person, async (tx) => {
  await tx.run('INSERT INTO finish_test (piece_id, test, result, spot, person_id, at) VALUES (:id, :test, :result, :spot, :personId, :at)', { ...input, id, personId: person.id, at })
  const { facts } = await readPiece(tx, id)
  return { kind: 'test', says: `Test ${input.test}: ${input.result}. Likely ${facts.found!.finish}, ${Math.round(facts.found!.certainty * 100)} %`, result: { ok: true } }
})
export async function withdrawTest(id: number, person: Person, at: Date) {
  const pieceId = await ownerOf('SELECT piece_id FROM finish_test WHERE id = :id AND withdrawn_at IS NULL', id, 'test')
  return onPiece(pieceId, at, person, async (tx, { tests }) => {
    await tx.run('UPDATE finish_test SET withdrawn_at = :at WHERE id = :id', { id, at })
    return { kind: 'test', says: `Test withdrawn: ${tests.find(t => t.id === id)?.test ?? ''}`, result: { ok: true } }
  })
}
export const addEvidence = (id: number, input: z.infer<typeof s.addEvidence>, person: Person, at: Date) => onPiece(id, at, person, async (tx) => {
  await tx.run('INSERT INTO evidence (piece_id, kind, answer, method, person_id, at) VALUES (:id, :kind, :answer, :method, :personId, :at)', { ...input, id, personId: person.id, at })
  return { kind: 'evidence', says: `Lead test: ${input.answer} (${input.method})`, result: { ok: true } }
})

/** What is known about the finish, with reasons, and the next most telling tests. */
export function examination({ piece, tests }: PieceFile) {
  const start = prior(piece.period, piece.refinished)
  const seen = observations(tests)
  const found = identify(start, seen)
  return {
    ...found, ranked: found.ranked.slice(0, 4).map(b => ({ finish: b.finish, p: round(Math.min(0.95, b.p), 3) })), reasons: reasonsFor(found, seen),
    next: nextTests(start, seen).slice(0, 3).map(n => ({ test: n.test.slug, how: n.test.how, harm: n.test.harm, minutes: n.test.minutes, gain_bits: round(n.gain_bits, 2), results: Object.keys(n.test.results) })),
    all: nextTests(start, seen).map(n => ({ test: n.test.slug, results: Object.keys(n.test.results) })),
  }
}

export async function piecePage(id: number) {
  const file = await readPiece(db(), id)
  const photographs = await db().rows<{ address: string, taken_at: Date | null, added_at: Date, width: number, height: number }>('SELECT address, taken_at, added_at, width, height FROM photograph WHERE piece_id = :id ORDER BY id', { id })
  return {
    piece: file.piece, faces: file.faces.map(f => ({ ...f, area_m2: round(faceArea(f), 4) })), findings: file.findings, tests: file.tests, evidence: file.evidence, photographs,
    area_m2: round(sumOf(file.faces.filter(f => f.scope === 'refinish'), faceArea), 3), lead: file.facts.lead, leadSuspected: leadSuspected(file.facts.lead), found: file.facts.found, examination: examination(file),
  }
}

export async function listPieces(query: z.infer<typeof s.pieceQuery>) {
  return db().rows<{ id: number, name: string, client_name: string, state: PieceRow['state'], due_on: string | null, route: string | null, finish: string | null, taken_in_at: Date, steps: number, done: number, thumb: string | null }>(
    `SELECT piece.id, piece.name, client.name AS client_name, piece.state, piece.due_on, piece.route, piece.finish, piece.taken_in_at,
            (SELECT COUNT(*) FROM plan_step WHERE piece_id = piece.id AND state <> 'skipped') AS steps,
            (SELECT COUNT(*) FROM plan_step WHERE piece_id = piece.id AND state = 'done') AS done,
            (SELECT address FROM photograph WHERE piece_id = piece.id ORDER BY id LIMIT 1) AS thumb
       FROM piece JOIN client ON client.id = piece.client_id
      WHERE (:state = 'all' OR piece.state = :state)
        AND (:find = '' OR piece.name LIKE CONCAT('%', :like, '%') OR client.name LIKE CONCAT('%', :like, '%') OR piece.id = :number)
      ORDER BY piece.state, piece.due_on IS NULL, piece.due_on, piece.id LIMIT 500`,
    { ...query, like: query.find.replace(/[\\%_]/g, '\\$&'), number: /^\d{1,9}$/.test(query.find) ? Number(query.find) : 0 })
}

/**
 * What a migration changes that SQL cannot say: rows read, put through core, and written. Each may be cut off
 * anywhere.
 */
import type { Connection, ResultSetHeader, RowDataPacket } from 'mysql2/promise'
import { asGrit, type Grit } from '../../core/abrasives'
import { fieldsOfTitle, type OldStep, typedOf, withFields } from '../../core/acts'
import { canonicalJson, type Json } from '../../core/approval'
import { choiceOfPicks, type PickedWay } from '../../core/build'
import { houseOf } from '../../core/house'
import type { Facts } from '../../core/piece'

const SOME = 500
type Row = Record<string, unknown> & { id: number }
async function rowsOf(on: Connection, sql: string, values: unknown[] = []): Promise<Row[]> {
  const [rows] = await on.query<RowDataPacket[]>(sql, values)
  return rows as unknown as Row[]
}

/** Fields of stored steps, read out of their titles once; a typed title stays, another is said anew. */
async function stepFields(on: Connection): Promise<void> {
  for (;;) {
    const rows = await rowsOf(on, 'SELECT id, kind, title, by_hand FROM plan_step WHERE fields IS NULL LIMIT ?', [SOME])
    if (rows.length === 0) return
    for (const row of rows) {
      const old = row as unknown as Pick<OldStep, 'kind' | 'title'>
      const typed = typedOf(Boolean(row.by_hand))
      await on.query('UPDATE plan_step SET fields = ?, typed = ?, title = ? WHERE id = ?', [
        JSON.stringify(fieldsOfTitle(old)),
        typed.join(),
        typed.length ? old.title : '',
        row.id,
      ])
    }
  }
}

type KeptStep = OldStep & { fields?: unknown; grits?: (Grit | number)[] }
/** A plan kept for undo, its steps put through `anew`; a text that cannot be read is left as it is. */
function keptAnew(text: string, anew: (step: KeptStep) => object): string {
  try {
    const kept = JSON.parse(text) as { steps: KeptStep[]; leasts: unknown }
    return canonicalJson({ ...kept, steps: kept.steps.map(anew) } as unknown as Json)
  } catch {
    return text
  }
}
async function keptPlans(on: Connection, anew: (step: KeptStep) => object): Promise<void> {
  let last = 0
  for (;;) {
    const rows = await rowsOf(
      on,
      'SELECT id, steps_before, steps_after FROM plan_edit WHERE id > ? ORDER BY id LIMIT ?',
      [last, SOME],
    )
    if (rows.length === 0) return
    for (const row of rows) {
      const [before, after] = [row.steps_before, row.steps_after].map(text => keptAnew(String(text), anew))
      await on.query('UPDATE plan_edit SET steps_before = ?, steps_after = ? WHERE id = ?', [before, after, row.id])
      last = row.id
    }
  }
}

const listed = (text: unknown): number[] => String(text).split(',').map(Number)
const record = (value: unknown): Record<string, string> => {
  try {
    const found: unknown = typeof value === 'string' ? JSON.parse(value) : value
    return typeof found === 'object' && found !== null && !Array.isArray(found) ? (found as Record<string, string>) : {}
  } catch {
    return {}
  }
}

/** What a piece's picks looked at: its faces, what was found on them, the sheen. */
async function wishedOf(on: Connection, piece: Row): Promise<Pick<Facts, 'faces' | 'findings' | 'sheen' | 'rustic'>> {
  const faces = await rowsOf(
    on,
    `SELECT face.id, face.species, face.substrate, face.veneer_mm, face.finish_group, part.scope
        FROM face
        JOIN part ON part.id = face.part_id
        WHERE part.piece_id = ?
        ORDER BY face.id`,
    [piece.id],
  )
  const findings = await rowsOf(
    on,
    `SELECT finding.id, finding.face_id, finding.kind
        FROM finding
        JOIN face ON face.id = finding.face_id
        JOIN part ON part.id = face.part_id
        WHERE part.piece_id = ? AND finding.withdrawn_at IS NULL`,
    [piece.id],
  )
  return {
    faces: faces.map(f => ({ ...f, finishGroup: f.finish_group }) as unknown as Facts['faces'][number]),
    findings: findings.map(f => ({ faceId: f.face_id, kind: f.kind }) as Facts['findings'][number]),
    sheen: piece.sheen as Facts['sheen'],
    rustic: false,
  }
}

const pickedOf = (row: Row, faces?: number[]): PickedWay => {
  const { route, finish, colour, conditioner, fill, bleach, film_um } = row
  return { route, finish, colour, conditioner, fill, bleach, film_um, ...(faces ? { faces } : {}) } as PickedWay
}

/** Build-ups of the picks that pieces were planned by. A piece is written whole, so that a start may be cut off. */
async function buildUps(on: Connection): Promise<void> {
  const shop = record((await rowsOf(on, 'SELECT JSON_OBJECTAGG(slug, choice) AS id FROM house_method'))[0]?.id)
  const pieces = await rowsOf(
    on,
    'SELECT * FROM piece WHERE route IS NOT NULL AND id NOT IN (SELECT piece_id FROM build_up) ORDER BY id',
  )
  for (const piece of pieces) {
    const ways = await rowsOf(
      on,
      `SELECT own_way.*, (SELECT GROUP_CONCAT(face_id) FROM own_way_face WHERE way_id = own_way.id) AS faces
          FROM own_way
          WHERE piece_id = ?
          ORDER BY id`,
      [piece.id],
    )
    const house = houseOf({ ...shop, ...record(piece.house) })
    const choice = choiceOfPicks(
      { facts: await wishedOf(on, piece), house },
      pickedOf(piece),
      ways.filter(w => w.faces !== null).map(w => pickedOf(w, listed(w.faces))),
    )
    await on.query('START TRANSACTION')
    for (const [i, { ground, ending, layers, faces }] of choice.buildUps.entries()) {
      const [made] = await on.query<ResultSetHeader>(
        'INSERT INTO build_up (piece_id, position, ground, ending) VALUES (?, ?, ?, ?)',
        [piece.id, i + 1, ground, ending],
      )
      for (const face of faces ?? [])
        await on.query('INSERT INTO build_up_face (build_up_id, face_id) VALUES (?, ?)', [made.insertId, face])
      for (const [no, l] of layers.entries()) {
        const [laid] = await on.query<ResultSetHeader>(
          `INSERT INTO layer (build_up_id, position, act, product, coats, film_um, method, used_as, fields)
              VALUES (?, ?, ?, ?, ?, ?, ?, ?, ?)`,
          [
            made.insertId,
            (no + 1) * 10,
            l.act,
            l.product,
            l.coats,
            l.film_um,
            l.method,
            l.use,
            JSON.stringify(l.fields),
          ],
        )
        for (const face of l.faces ?? [])
          await on.query('INSERT INTO layer_face (layer_id, face_id) VALUES (?, ?)', [laid.insertId, face])
      }
    }
    await on.query('COMMIT')
  }
}

/** By the migration after whose statements it runs. */
export const CONVERSIONS: Readonly<Record<string, (on: Connection) => Promise<void>>> = {
  '007-fields.sql': async on => {
    await stepFields(on)
    await keptPlans(on, step => (step.fields === undefined ? withFields(step) : step))
  },
  '010-build-up.sql': buildUps,
  '009-changed.sql': async on => keptPlans(on, step => ({ ...step, grits: step.grits?.map(asGrit) ?? [] })),
}

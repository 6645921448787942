/** A row that cannot be read: a page of everybody never falls with it. */
import mysql from 'mysql2/promise'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import type { Role } from '#shared/rights'
import { act, type Caller, choice, intake, setClock, shopPeople, stepOf, sayYes } from './http'

const people = {} as Record<Role, Caller>
let sql: mysql.Connection
const t = (clock: string) => `2026-12-01T${clock}:00+01:00`

beforeAll(async () => {
  Object.assign(people, await shopPeople())
  sql = await mysql.createConnection({ uri: process.env.HANTVERK_SQL!, multipleStatements: true })
})
const aside: number[] = []
afterAll(async () => {
  if (aside.length) await sql.query("UPDATE piece SET state = 'active' WHERE id IN (?)", [aside])
  await sql.end()
})
beforeEach(() => setClock(people.owner, t('08:00')))

const takenIn = async (more = {}) => (await people.office.ok<{ id: number }>('POST /api/pieces', intake(more))).id
const firstFace = async (id: number) =>
  (await people.owner.ok<{ faces: { id: number }[] }>(`GET /api/pieces/${id}`)).faces[0]!.id

/** What is concluded of pieces is kept by their numbers and by what the shop told last: both go on by one. */
const READ_ANEW = `UPDATE piece SET changed_no = changed_no + 1;
  UPDATE event_counter SET last = last + 1;
  INSERT INTO event (id, topic, at) SELECT last, 'shop', UTC_TIMESTAMP(3) FROM event_counter`

describe('a row that cannot be read', () => {
  const pages = [
    'GET /api/now',
    'GET /api/timetable',
    'GET /api/pieces',
    'GET /api/store',
    'GET /api/answers',
    'GET /api/colour',
    'GET /api/shop',
    'GET /api/batches',
  ]
  interface Strange {
    unreadable: { id: number; why: string }[]
  }
  /** A piece with something in every table, whose values are then made bad one at a time. */
  async function richPiece() {
    const id = await takenIn({ name: 'Rich' })
    const face = await firstFace(id)
    await people.lead.ok(`POST /api/pieces/${id}/tests`, { test: 'look', result: 'crazed', spot: '' })
    await people.lead.ok(`POST /api/pieces/${id}/findings`, {
      faceId: face,
      kind: 'crack',
      grade: 3,
      wish: 'mend',
      note: '',
    })
    await people.lead.ok(`POST /api/pieces/${id}/evidence`, { kind: 'lead', answer: 'no', method: 'swab' })
    await people.lead.ok(`POST /api/pieces/${id}/moisture`, { faceId: face, reading_pct: 9 })
    await people.lead.ok(`POST /api/pieces/${id}/patches`, {
      faceId: face,
      method: 'stripper',
      length: '100',
      width: '100',
      minutes: 5,
      result: 'all-off',
      note: '',
    })
    await people.lead.ok(`POST /api/pieces/${id}/items`, {
      name: 'knob',
      kind: 'hardware',
      count: 2,
      holes: { centres_mm: [10], diameter_mm: 5, plate_w_mm: null, plate_h_mm: null },
    })
    await people.lead.ok(`PUT /api/pieces/${id}/choice`, {
      ...choice,
      rowVersion: 1,
      house: { 'between-coats': 'P220' },
    })
    await sayYes(people.office, id)
    await sql.query('INSERT INTO wait_said (piece_id, from_key, to_key, least_min) VALUES (?, ?, ?, 5)', [
      id,
      ...['wash', 'cover'],
    ])
    const reading = {
      pieceId: id,
      name: 'Bare',
      role: 'wood',
      lab: { L: 60, a: 8, b: 20, light: 'd65', observer: '10' },
    }
    const [wood, band] = [
      await people.lead.ok<{ id: number }>('POST /api/readings', reading),
      await people.lead.ok<{ id: number }>('POST /api/readings', { ...reading, lab: { ...reading.lab, L: 40 } }),
    ]
    const { id: productId } = await people.lead.ok<{ id: number }>('POST /api/products', {
      name: `dye ${crypto.randomUUID()}`,
      class: 'water-dye',
      priceMinor: 100,
    })
    await people.lead.ok('POST /api/colourants', {
      productId,
      lies: 'wood',
      most_pct: 5,
      woodId: wood.id,
      bandId: band.id,
      pct: 2,
    })
    await people.lead.ok('POST /api/batches', {
      kind: 'mix',
      name: 'Pot',
      by: 'weight',
      pieceId: id,
      ingredients: [{ name: 'Water', share: 1, of: 'parts', density_g_ml: 1 }],
      wanted: { total_g: 100 },
    })
    await setClock(people.owner, t('08:30'))
    await act(people.lead, 'start', await stepOf(people.owner, id, 'wash'), t('08:30'))
    return id
  }
  it('is told beside all that can be, whichever stored value is made bad', async () => {
    // what other tests took in is put aside: every page is read some two hundred times
    const [open] = await sql.query<mysql.RowDataPacket[]>("SELECT id FROM piece WHERE state = 'active'")
    aside.push(...open.map(r => r.id as number))
    if (aside.length) await sql.query("UPDATE piece SET state = 'handed-over' WHERE id IN (?)", [aside])
    const id = await richPiece()
    const other = await takenIn({ name: 'Sound' })
    await people.lead.ok(`PUT /api/pieces/${other}/choice`, { ...choice, rowVersion: 1 })
    const own = 'face JOIN part ON part.id = face.part_id WHERE part.piece_id'
    const where: Record<string, string> = {
      piece: `id = ${id}`,
      part: `piece_id = ${id}`,
      face: `id IN (SELECT id FROM (SELECT face.id FROM ${own} = ${id}) AS f)`,
      finding: `face_id IN (SELECT face.id FROM ${own} = ${id})`,
      finish_test: `piece_id = ${id}`,
      evidence: `piece_id = ${id}`,
      moisture_reading: `face_id IN (SELECT face.id FROM ${own} = ${id})`,
      patch: `face_id IN (SELECT face.id FROM ${own} = ${id})`,
      item: `piece_id = ${id}`,
      build_up: `piece_id = ${id}`,
      layer: `build_up_id IN (SELECT id FROM (SELECT id FROM build_up WHERE piece_id = ${id}) AS b)`,
      product_label: '1 = 1',
      plan_step: `piece_id = ${id}`,
      wait_said: `piece_id = ${id}`,
      approval: `piece_id = ${id}`,
      house_method: '1 = 1',
      walk_answer: `piece_id = ${id}`,
      reading: `piece_id = ${id}`,
      colourant: 'product_id = (SELECT MAX(product_id) FROM (SELECT product_id FROM colourant) AS c)',
      batch: `piece_id = ${id}`,
      overrule: `piece_id = ${id}`,
      alarm_ack: `piece_id = ${id}`,
    }
    const [columns] = await sql.query<mysql.RowDataPacket[]>(
      `SELECT table_name AS t, column_name AS c, data_type AS d, character_maximum_length AS n
          FROM information_schema.columns
          WHERE table_schema = DATABASE() AND table_name IN (?) AND column_key = '' AND extra = ''
          ORDER BY t, ordinal_position`,
      [Object.keys(where)],
    )
    const bad = (d: string, n: number | null): string[] => {
      if (/char|text/.test(d)) return ['toString', '81', ''].map(v => `'${v.slice(0, n ?? 9)}'`)
      if (/json|longtext/.test(d)) return ['\'"x"\'', "'[1]'"]
      if (/decimal/.test(d)) return ['999']
      if (/int/.test(d)) return ['127']
      if (d === 'enum') return ["''"]
      if (/date/.test(d)) return ["'1000-01-01'", "'9999-12-31'"]
      return []
    }
    let tried = 0
    const told = new Set<string>()
    await sql.query("SET sql_mode = '', check_constraint_checks = 0")
    for (const { t: table, c, d, n } of columns as { t: string; c: string; d: string; n: number | null }[]) {
      for (const value of bad(d, n)) {
        await sql.query(
          `DROP TABLE IF EXISTS kept; CREATE TABLE kept AS SELECT * FROM \`${table}\` WHERE ${where[table]}`,
        )
        const [done] = (await sql.query(
          `UPDATE IGNORE \`${table}\` SET \`${c}\` = ${value} WHERE ${where[table]}`,
        )) as [mysql.ResultSetHeader, unknown]
        if (done.affectedRows === 0) continue
        tried++
        await sql.query(READ_ANEW)
        for (const page of pages) {
          const reply = await people.owner.send<Strange>(page)
          expect(reply.status, `${table}.${c} = ${value}: ${page}: ${reply.body.message}`).toBe(200)
          for (const u of reply.body.unreadable ?? []) {
            told.add(`${table}.${c}`)
            expect(u.id).toBe(id)
          }
        }
        const own = ['wait_said', 'house_method'].includes(table) ? null : 'id'
        const back = table === 'colourant' ? 'product_id' : own
        if (back)
          await sql.query(
            `UPDATE \`${table}\`
                JOIN kept ON kept.${back} = \`${table}\`.${back}
                SET \`${table}\`.\`${c}\` = kept.\`${c}\``,
          )
        else if (table === 'wait_said')
          await sql.query(
            `UPDATE wait_said w
                JOIN kept ON kept.piece_id = w.piece_id AND kept.from_key = w.from_key AND kept.to_key = w.to_key
                SET w.\`${c}\` = kept.\`${c}\``,
          )
        else await sql.query(`UPDATE house_method w JOIN kept ON kept.slug = w.slug SET w.\`${c}\` = kept.\`${c}\``)
      }
    }
    await sql.query(`DROP TABLE kept; ${READ_ANEW}`)
    expect(tried).toBeGreaterThan(100)
    for (const column of [
      'plan_step.grits',
      'plan_step.kind',
      'build_up.ground',
      'layer.act',
      'layer.product',
      'finding.kind',
      'finish_test.test',
      'patch.method',
      'item.holes',
    ])
      expect([...told]).toContain(column)
    expect((await people.owner.ok<Strange>('GET /api/now')).unreadable).toEqual([])
  }, 300_000)
  it.each(['{"spots":7}', '{"where":"spots","spots":[null]}', '{"band_mm":"x"}', '[]'])(
    'a step that carries %s is said to be damaged',
    async fields => {
      const id = await takenIn()
      await people.lead.ok(`PUT /api/pieces/${id}/choice`, { ...choice, rowVersion: 1 })
      await sql.query("UPDATE plan_step SET fields = ? WHERE piece_id = ? AND kind = 'strip'", [fields, id])
      await sql.query(READ_ANEW)
      const { body } = await people.owner.send(`GET /api/pieces/${id}/plan`)
      expect(body).toMatchObject({ code: 'unreadable', message: expect.stringMatching(/carries is damaged/) as string })
      await people.lead.ok(`PUT /api/pieces/${id}/choice`, { ...choice, rowVersion: 2 })
    },
  )
  it('says on its own pages what is wrong, and its route can be taken anew', async () => {
    const id = await takenIn()
    await people.lead.ok(`PUT /api/pieces/${id}/choice`, { ...choice, rowVersion: 1 })
    await sql.query("UPDATE plan_step SET grits = '81' WHERE piece_id = ? AND kind = 'sand'", [id])
    await sql.query(READ_ANEW)
    expect((await people.owner.send(`GET /api/pieces/${id}/plan`)).body).toMatchObject({
      code: 'unreadable',
      message: expect.stringMatching(/grit 81 .* on no scale/) as string,
    })
    expect((await people.owner.ok<Strange>('GET /api/now')).unreadable.map(u => u.id)).toEqual([id])
    await people.lead.ok(`PUT /api/pieces/${id}/choice`, { ...choice, rowVersion: 2 })
    expect((await people.owner.send(`GET /api/pieces/${id}/plan`)).status).toBe(200)
    expect((await people.owner.ok<Strange>('GET /api/now')).unreadable).toEqual([])
  })
})

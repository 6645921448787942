import { DateTime } from 'luxon'
import Papa from 'papaparse'
import type { z } from 'zod'
import { STALE_AFTER_MIN } from '#core/air'
import { textCell } from '#core/formats'
import { LOG_GROUPS } from '#shared/schemas'
import type * as s from '#shared/schemas'
import { db } from '../../database/db'
import { readShop } from '../shop/rows'
import { BY_HAND } from '../shop/air'

interface LogRow {
  id: number
  piece_id: number | null
  piece: string | null
  step_id: number | null
  kind: string
  says: string
  happened_at: Date
  recorded_at: Date
  by_name: string | null
  undoes_id: number | null
  /** the room's air at that moment, where it was measured */
  temperature_C: number | null
  rh: number | null
}
interface Asked {
  piece: number | null
  from: Date | null
  until: Date | null
  group?: keyof typeof LOG_GROUPS
  person?: number
}
const MOST = 1000

/** Entries of the logbook, the newest first, with the air of their moment and the photographs of their steps. */
async function readLog({ piece, from, until, group, person }: Asked) {
  const rows = await db().rows<LogRow>(
    `SELECT logbook.id, logbook.piece_id, piece.name AS piece, logbook.step_id, logbook.kind, logbook.says,
        logbook.happened_at, logbook.recorded_at, person.name AS by_name, logbook.undoes_id, air.temperature_C, air.rh
        FROM logbook
        LEFT JOIN piece ON piece.id = logbook.piece_id
        LEFT JOIN person ON person.id = logbook.person_id
        LEFT JOIN climate_reading air ON air.id = (
          SELECT id
          FROM climate_reading
          WHERE logger = '' AND at <= logbook.happened_at + INTERVAL 1 MINUTE
            AND at > logbook.happened_at - INTERVAL
              IF(source = '${BY_HAND}', (SELECT hand_air_min FROM shop), ${STALE_AFTER_MIN}) MINUTE
          ORDER BY source = '${BY_HAND}' DESC, at DESC, id DESC
          LIMIT 1
        )
        WHERE (:piece IS NULL OR logbook.piece_id = :piece)
          AND (:from IS NULL OR (logbook.recorded_at >= :from AND logbook.recorded_at < :until))
          AND (:person IS NULL OR logbook.person_id = :person)
          AND (:all OR logbook.kind IN (:kinds))
        ORDER BY logbook.id DESC
        LIMIT ${MOST}`,
    { piece, from, until, person: person ?? null, all: !group, kinds: group ? LOG_GROUPS[group] : [''] },
  )
  const steps = [...new Set(rows.flatMap(r => r.step_id ?? []))]
  const pictures = steps.length
    ? await db().rows<{ step_id: number; address: string }>(
        'SELECT step_id, address FROM photograph WHERE step_id IN (:steps) ORDER BY id',
        { steps },
      )
    : []
  const used = steps.length
    ? await db().rows<{ step_id: number; ml: number | null; g: number | null }>(
        `SELECT plan_step.id AS step_id,
            (SELECT SUM(amount) FROM lot_use WHERE lot_use.step_id = plan_step.id) AS ml,
            (SELECT SUM(amount_g) FROM pot_use WHERE pot_use.step_id = plan_step.id) AS g
            FROM plan_step
            WHERE plan_step.id IN (:steps)`,
        { steps },
      )
    : []
  // the newest entry of a step carries what was taken of it, and the newest that finished it what it used up
  const shown = new Set<string>()
  const isFirst = (r: LogRow, kind: string) => {
    const key = `${r.step_id}${kind}`
    const first = r.step_id !== null && !shown.has(key)
    shown.add(key)
    return first
  }
  return rows.map(r => {
    const taken = isFirst(r, '') ? pictures.filter(p => p.step_id === r.step_id).map(p => p.address) : []
    const its = r.kind === 'finished' && isFirst(r, r.kind) ? used.find(u => u.step_id === r.step_id) : undefined
    return { ...r, pictures: taken, used_ml: its?.ml ?? null, used_g: its?.g ?? null }
  })
}

type Filters = z.infer<typeof s.logQuery>
export const pieceLog = (piece: number, filters: Filters) => readLog({ piece, from: null, until: null, ...filters })

/** A day of the shop, today where none is named. */
export async function dayLog({ day, ...filters }: z.infer<typeof s.dayLogQuery>, at: Date) {
  const { zone } = await readShop()
  const start = (day ? DateTime.fromISO(day, { zone }) : DateTime.fromJSDate(at, { zone })).startOf('day')
  const entries = await readLog({
    piece: null,
    from: start.toJSDate(),
    until: start.plus({ days: 1 }).toJSDate(),
    ...filters,
  })
  return { day: start.toISODate()!, entries }
}

/** The same entries as CSV, moments in the shop's zone. */
export async function exportLog({ piece, ...asked }: z.infer<typeof s.exportLogQuery>, at: Date): Promise<string> {
  const { day: _, ...filters } = asked
  const entries = piece === undefined ? (await dayLog(asked, at)).entries : await pieceLog(piece, filters)
  const { zone } = await readShop()
  const moment = (m: Date) => DateTime.fromJSDate(m, { zone }).toFormat('yyyy-MM-dd HH:mm:ss')
  const data = entries.map(e => [
    e.id,
    moment(e.happened_at),
    moment(e.recorded_at),
    e.by_name === null ? '' : textCell(e.by_name),
    e.piece_id ?? '',
    textCell(e.piece ?? ''),
    e.kind,
    textCell(e.says),
    e.temperature_C ?? '',
    e.rh === null ? '' : Math.round(e.rh * 100),
    e.used_ml ?? '',
    e.used_g ?? '',
    e.undoes_id ?? '',
  ])
  const fields = [
    'entry',
    'happened',
    'written',
    'by',
    'piece',
    'name',
    'kind',
    'says',
    '°C',
    '% RH',
    'ml',
    'g',
    'takes back',
  ]
  return Papa.unparse({ fields, data }, { newline: '\n' }) + '\n'
}

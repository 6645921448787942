/** What the shop's record answers: sums with their lines, on the page and as CSV. */
import { DateTime } from 'luxon'
import type { z } from 'zod'
import { actOf, STEP_KINDS, type StepKind } from '#core/acts'
import { type Decimal, writeTable } from '#core/formats'
import { MATERIALS } from '#core/materials'
import { nameOfClass } from '#core/store'
import * as s from '#shared/schemas'
import { db } from '../../database/db'
import { readRates } from '../plan/asking'
import { readTitles } from '../plan/titles'
import type { Person } from '../shop/person'
import { readShop } from '../shop/rows'
import { CHOSEN } from './lines'
import { type Question, QUESTIONS } from './questions'

type Asked = z.infer<typeof s.recordQuery>
const KINDS = new Set<string>(STEP_KINDS)
/** Roles of what stays on a piece. */
const FINISHING = new Set(['film', 'oil', 'wax'])
const MOST_GROUPS = 60
const MOST_LINES = 500

/** The question, as far as somebody may ask it; whose hours they are only that person and the owner ask. */
function questionFor(name: s.RecordAsk, asked: Asked, person: Person): Question {
  const question: Question = QUESTIONS[name]
  if (question.prices && !person.rights.has('see-prices'))
    throw fail(403, 'forbidden', 'Your role does not see prices.')
  if (asked.person !== null && asked.person !== person.id && person.role !== 'owner')
    throw fail(403, 'forbidden', "Others' work is asked about by the owner.")
  return question
}
/** A finish proves itself over years; of all else the last one is asked, where nobody says more. */
const timeOf = ({ ask, time, from, to }: Asked): s.RecordTime => {
  if (from !== null || to !== null) return 'between'
  return time ?? (ask === 'lasts' ? 'all' : 'year')
}
async function paramsOf(asked: Asked, person: Person, at: Date) {
  const { zone, store_free_days, store_day_minor } = await readShop()
  const now = DateTime.fromJSDate(at, { zone })
  const day = (iso: string) => DateTime.fromISO(iso, { zone })
  const early = timeOf(asked) === 'year' ? now.minus({ years: 1 }).startOf('day') : DateTime.fromMillis(0)
  const rates = await readRates()
  return {
    ...{ kind: asked.kind, wood: asked.wood, finish: asked.finish, person: asked.person, me: person.id, now: at },
    from: (asked.from ? day(asked.from) : early).toJSDate(),
    to: (asked.to ? day(asked.to).endOf('day') : now.plus({ years: 50 })).toJSDate(),
    all: person.role === 'owner',
    ...{ hour: rates.hour_minor, markup: rates.materialMarkup_bp / 10_000, tax: rates.tax_bp / 10_000 },
    ...{ freeDays: store_free_days, dayMinor: store_day_minor },
  }
}

/** What lines count under, in words; null where the page has its own word for it. */
function ofSaid({ by }: Question, of: string): string | null {
  const [slug = '', method] = of.split(' ')
  switch (by) {
    case 'act':
      return KINDS.has(slug) ? actOf({ kind: slug as StepKind }).called : slug
    case 'class': {
      return method ? `${nameOfClass(slug)}, ${method}` : nameOfClass(slug)
    }
    case 'person':
    case 'name':
    case 'month':
      return of
    case 'kind':
    case 'cause':
    case 'finding':
      return null
  }
}
interface Group {
  of: string
  n: number
  planned: number | null
  really: number
  least: number
  mean: number
  most: number
}
interface Line {
  of: string
  piece_id: number | null
  piece: string
  what: string
  step_id: number | null
  planned: number | null
  really: number
  word: string
  at: Date
}
const numbers = <T extends object>(row: T, names: readonly (keyof T)[]): T => ({
  ...row,
  ...Object.fromEntries(names.map(n => [n, row[n] === null ? null : Number(row[n])])),
})
async function groupsOf(question: Question, params: Record<string, unknown>) {
  const rows = await db().rows<Group>(
    `${CHOSEN}
      SELECT line.\`of\`, COUNT(*) AS n, SUM(line.planned) AS planned, SUM(line.really) AS really,
          MIN(line.really) AS least, AVG(line.really) AS mean, MAX(line.really) AS most
        FROM (${question.sql}) line
        GROUP BY line.\`of\`
        ORDER BY ${question.by === 'month' ? 'line.`of`' : 'SUM(line.really) DESC'}
        LIMIT ${MOST_GROUPS}`,
    params,
  )
  return rows.map(r => ({
    ...numbers(r, ['n', 'planned', 'really', 'least', 'mean', 'most']),
    says: ofSaid(question, r.of),
  }))
}
async function linesOf(question: Question, of: string | null, params: Record<string, unknown>) {
  const rows = await db().rows<Line>(
    `${CHOSEN}
      SELECT line.*
        FROM (${question.sql}) line
        WHERE :of IS NULL OR line.\`of\` = :of
        ORDER BY line.at DESC
        LIMIT ${MOST_LINES}`,
    { ...params, of },
  )
  const title = await readTitles(
    db(),
    rows.map(r => r.step_id),
  )
  return rows.map(({ step_id, ...r }) => ({
    ...numbers(r, ['piece_id', 'planned', 'really']),
    what: [r.what, title(step_id)].filter(Boolean).join(': '),
  }))
}

/** What can be asked, by whom, and the choices that narrow it. */
async function choices(person: Person) {
  const slugs = async (sql: string) => (await db().rows<{ slug: string }>(sql)).map(r => r.slug)
  const used = await slugs('SELECT DISTINCT product AS slug FROM plan_step WHERE product IS NOT NULL')
  return {
    questions: s.RECORD_ASKS.filter(n => !(QUESTIONS[n] as Question).prices || person.rights.has('see-prices')),
    woods: await slugs('SELECT DISTINCT species AS slug FROM face ORDER BY slug LIMIT 100'),
    finishes: MATERIALS.filter(m => FINISHING.has(m.role) && used.includes(m.slug)).map(({ slug, name }) => ({
      slug,
      name,
    })),
    people: await db().rows<{ id: number; name: string }>(
      'SELECT id, name FROM person WHERE :all OR id = :id ORDER BY name',
      { all: person.role === 'owner', id: person.id },
    ),
  }
}
export async function recordPage(asked: Asked, person: Person, at: Date) {
  const question = questionFor(asked.ask, asked, person)
  const params = await paramsOf(asked, person, at)
  const { by, as, unit } = question
  return {
    ...{ ask: asked.ask, time: timeOf(asked), by, as, unit },
    groups: await groupsOf(question, params),
    lines: asked.of === null ? null : await linesOf(question, asked.of, params),
    ...(await choices(person)),
  }
}

/** Headings, with units. */
const UNITS = { min: ' in min', ml: ' in ml', percent: ' in %', none: '' } as const
export async function recordCsv(asked: Asked & { decimal: Decimal }, person: Person, at: Date): Promise<string> {
  const question = questionFor(asked.ask, asked, person)
  const { currency, zone } = await readShop()
  const lines = await linesOf(question, asked.of, await paramsOf(asked, person, at))
  const money = question.unit === 'money'
  const unit = money ? ` in ${currency}` : UNITS[question.unit as keyof typeof UNITS]
  const figure = (n: number | null) => (n === null ? null : Math.round(money ? n : n * 100) / 100)
  return writeTable(
    [question.by, 'piece', 'name', 'what', `planned${unit}`, `really${unit}`, 'word', 'at'],
    lines.map(l => [
      ...[ofSaid(question, l.of) ?? l.of, l.piece_id, l.piece, l.what, figure(l.planned), figure(l.really)],
      ...[String(l.word), DateTime.fromJSDate(l.at, { zone }).toFormat('yyyy-MM-dd HH:mm')],
    ]),
    asked.decimal,
  )
}

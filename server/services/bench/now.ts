import { DateTime } from 'luxon'
import { roundEndingAt, seenAt } from '#core/plan'
import { cautionsOfStep, type Seen, wears } from '#core/acts'
import { dewPoint_C, GENERAL_AIR, judgeAir, LACQUER_AIR } from '#core/air'
import { taken } from '#core/materials'
import type { RouteSlug } from '#core/piece'
import type { Caution } from '#core/safety'
import {
  CLOSING_MIN,
  closingOf,
  lateSays,
  leftAt_ms,
  nextSpan,
  spanAt,
  type Spell,
  together,
  type Window,
  windowOf,
} from '#core/timetable'
import { round } from '#core/units'
import { db } from '../../database/db'
import { runningPots } from '../colour/pots'
import type { Unreadable } from '../piece/rows'
import type { PlannedStep, StoredPlan } from '../plan/rows'
import { readWetCoat } from '../plan/wetCoat'
import { lastEvent } from '../platform/events'
import { readable } from '../platform/readable'
import { readAir } from '../shop/air'
import { ownAir, readRoomAir, readStepAir } from '../shop/roomAir'
import { readVapour, withoutFire } from '../breath/vapour'
import { clockIn, readHours } from '../shop/rows'
import { type Active, readActive } from './active'
import { handsOf, readFaces, readHands } from './hands'
import { type MeasuresLine, measuresLine } from './measures'
import { type SectionLine, sectionLine } from './sections'
import { type Planned, readPlanned } from './planned'
import { readLate } from './settle'
import { benchView } from './view'

interface StepLine {
  pieceId: number
  piece: string
  stepId: number
  key: string
  kind: string
  title: string
  faces: string
  attended_min: number
  rowVersion: number
  product: string | null
  productId: number | null
  recipe: string | null
  /** its product is mixed from two parts, or sets in its pot */
  potted: boolean
  amount_ml: number | null
  gate: { look: string; fails: string; fallback: RouteSlug | null } | null
  keeps: string[]
  cautions: Caution[]
  /** what its round passes by, while it runs, and the faces that may want one more */
  passTest: string | null
  on: { id: number; name: string }[]
  sections: SectionLine | null
  measures: MeasuresLine
  /** what may be said to have shown, at its end */
  seen: Seen[]
}
interface WindowLine extends Window {
  pieceId: number
  piece: string
  step: StepLine
  running: boolean
  acknowledged: string | null
  /** what can still be done, once it has closed */
  late: string | null
  /** who has what opened it in hand, or had it last: there an alarm sounds first */
  hands: number[]
}
interface RunningLine extends StepLine {
  started_ms: number
  startedBy: string | null
  outside: boolean
  spells: readonly Spell[]
  /** left in hand over this closing hour, and nobody has said since what became of it */
  left_ms: number | null
}
interface MayLine extends StepLine {
  inside: boolean
  outside: boolean
  latest_ms: number | null
  closes_ms: number | null
  /** it has been open since */
  since_ms: number | null
  /** minutes of hands and waits that hang on it, its own among them */
  behind_min: number
  /** when the timetable has it done, and by whom; null: it has no place there */
  planned: Planned | null
  warnings: string[]
}

const EARLY_CLOSE = 10 * 60_000
/** What came late is asked about for so long. */
const LATE_SHOWN_MS = 30 * 86_400_000

/** Looks at each piece by itself and lets others in between; what throws is told, and holds up nothing beside it. */
export async function eachPiece(
  pieces: readonly Active[],
  look: (piece: Active, plan: StoredPlan | undefined) => void,
): Promise<Unreadable[]> {
  const inTurns = turns()
  const strange: Unreadable[] = []
  for (const piece of pieces) {
    const { id, name } = piece.file.piece
    const failed = readable(id, name, () => look(piece, piece.plan))
    if (failed) strange.push(failed)
    await inTurns()
  }
  return strange
}

/** Both may be infinite, where a difference is no number. */
const order = (a: number, b: number): number => (a === b ? 0 : a - b)
const endOfDay = (day: string, zone: string) => DateTime.fromISO(day, { zone }).endOf('day').toMillis()

type NowPage = Awaited<ReturnType<typeof workOutNow>>
let asked: { event: number; at_ms: number; page: Promise<NowPage> } | undefined
const TOGETHER_MS = 1000

/**
 * Everything that can be done now. Tablets that ask at once share one answer, unless something was written in between.
 */
export async function nowPage(at: Date): Promise<NowPage> {
  const event = await lastEvent()
  if (asked && asked.event === event && Math.abs(at.getTime() - asked.at_ms) < TOGETHER_MS) return asked.page
  const page = workOutNow(at)
  const mine = { event, at_ms: at.getTime(), page }
  asked = mine
  try {
    return await page
  } finally {
    if (asked === mine) asked = undefined
  }
}

/** One question of the bench for each planned step, over all pieces. */
async function workOutNow(at: Date) {
  const [{ pieces, unreadable }, hours, { air, last }, rooms, timetable] = await Promise.all([
    readActive(),
    readHours(),
    readAir(at),
    readRoomAir(at),
    readPlanned(),
  ])
  const acks = await db().rows<{ piece_id: number; from_key: string; to_key: string; at: Date; name: string }>(
    `SELECT a.piece_id, a.from_key, a.to_key, a.at, person.name
        FROM alarm_ack a
        JOIN person ON person.id = a.person_id
        WHERE a.at > :since
        ORDER BY a.id`,
    { since: new Date(at.getTime() - EARLY_CLOSE) },
  )
  const heard = new Map(acks.map(a => [`${a.piece_id}|${a.from_key}|${a.to_key}`, a]))
  const windows: WindowLine[] = []
  const running: RunningLine[] = []
  const may: MayLine[] = []
  const mustNot: (StepLine & { code: string; says: string; latest_ms: number | null })[] = []
  const waiting: { pieceId: number; piece: string; says: string }[] = []
  const barred = new Map<string, string>()
  const airOf = await readStepAir(at, db(), rooms)
  const places = rooms.map(r => r.room)
  const vapourOf = withoutFire(await readVapour(at, db(), places))
  const wetCoat = await readWetCoat(db(), at, clockIn(hours.zone, at))
  const strange = await eachPiece(pieces, (active, plan) => {
    const { file } = active
    const { choice } = file
    if (!plan || !choice) {
      waiting.push({
        pieceId: file.piece.id,
        piece: file.piece.name,
        says: file.tests.length || file.findings.length ? 'choose a route' : 'examine',
      })
      return
    }
    const names = new Map(file.faces.map(f => [f.id, f.part]))
    const faceName = new Map(file.faces.map(f => [f.id, `${f.part}, ${f.name}`]))
    const view = benchView({
      ...{ plan, hours, at, airOf, wetCoat, vapourOf },
      verdicts: active.verdicts.start(at),
      shelf: file.context.shelf,
    })
    /** may end soon, on a tablet without a line also what is not begun here */
    const ends = (st: PlannedStep) => st.state === 'running' || Boolean(view.get(st.key)?.may)
    const line = (st: PlannedStep): StepLine => ({
      pieceId: file.piece.id,
      piece: file.piece.name,
      stepId: st.id,
      key: st.key,
      kind: st.kind,
      title: st.title,
      attended_min: st.attended_min,
      rowVersion: st.rowVersion,
      product: st.product,
      productId: st.productId,
      recipe: st.fields.recipe ?? null,
      potted: Boolean(taken(file.context.shelf, st)?.potLife_min),
      amount_ml: st.amount_ml,
      gate: st.gate ? { look: st.gate.look, fails: st.gate.fails, fallback: st.gate.fallback } : null,
      keeps: wears(st) ? file.facts.marks : [],
      cautions: cautionsOfStep(st, file.context, { shared: Boolean(file.piece.one_room) && !st.outside }),
      faces: [...new Set(st.faces.map(f => names.get(f)))].join(', '),
      passTest: ends(st) ? (roundEndingAt(plan.steps, st.key, file.context)?.passes ?? null) : null,
      sections: st.state === 'done' ? null : sectionLine(st, plan, file),
      measures: measuresLine(st, plan),
      seen: ends(st) ? seenAt(st, plan.steps.slice(plan.steps.indexOf(st) + 1)) : [],
      on: ends(st) ? st.faces.map(id => ({ id, name: faceName.get(id) ?? '' })) : [],
    })
    const byKey = new Map(plan.steps.map(st => [st.key, st]))
    const behind = active.behind()
    const open = (from: PlannedStep, to: PlannedStep) =>
      to.state === 'planned' || (to.state === 'running' && from.laid.length > 0)
    for (const st of plan.steps) {
      if (st.state === 'running')
        running.push({
          ...line(st),
          ...{ started_ms: st.started_ms!, startedBy: st.startedBy, outside: st.outside, spells: st.spells },
          left_ms: leftAt_ms(st.spells, hours, at.getTime()),
        })
      if (st.state !== 'planned') continue
      const v = view.get(st.key)!
      const codes = new Set(v.refusals.map(r => r.code))
      const m = codes.has('air') && v.air?.severity === 'stop' ? taken(file.context.shelf, st) : null
      if (m && !codes.has('earlier-step')) barred.set(m.name, v.air!.lines[0] ?? '')
      if (st.kind === 'approval')
        waiting.push({ pieceId: file.piece.id, piece: file.piece.name, says: 'waits for the client' })
      else if (v.may || v.outside)
        may.push({
          ...line(st),
          ...{ inside: v.may, outside: v.outside, latest_ms: v.latest_ms, closes_ms: v.closes_ms },
          since_ms: v.opens_ms,
          ...{ behind_min: behind.get(st.key) ?? 0, planned: timetable.get(st.id) ?? null },
          warnings: v.may ? v.warnings : v.refusals.map(r => r.says),
        })
      else if (!codes.has('earlier-step') && !codes.has('client') && !codes.has('too-early'))
        mustNot.push({
          ...line(st),
          code: v.refusals[0]!.code,
          says: v.refusals.map(r => r.says).join(' '),
          latest_ms: v.latest_ms,
        })
    }
    for (const st of plan.steps) {
      const its = st.state === 'running' ? sectionLine(st, plan, file) : null
      if (!its?.wipes || !its.next) continue
      const { no, opens_ms, closes_ms } = its.next
      windows.push({
        ...{ from: st.key, to: st.key, kind: 'dwell', why: 'it is wiped before it sets', hard: true, section: no },
        ...{ start_ms: st.laid[no - 1]!.on_ms, opens_ms, likely_ms: opens_ms, safe_ms: opens_ms, closes_ms },
        ...{ pieceId: file.piece.id, piece: file.piece.name, step: line(st), running: true },
        acknowledged: heard.get(`${file.piece.id}|${st.key}|${st.key}`)?.name ?? null,
        late: closes_ms < at.getTime() ? lateSays(st) : null,
        hands: handsOf(st),
      })
    }
    for (const to of plan.steps) {
      const before = plan.waits.flatMap(w => {
        const from = w.to === to.key ? byKey.get(w.from) : undefined
        return from && from.state !== 'skipped' ? [{ w, from }] : []
      })
      const own = before.flatMap(({ w, from }) => {
        if (!open(from, to) || from.kind === 'approval' || (w.min === 0 && w.max === null)) return []
        return windowOf(w, from, airOf(from.id)) ?? []
      })
      const [first, ...more] = own
      if (!first) continue
      const window = together([first, ...more])
      // what comes before it is not even begun: only a window that closes is worth a look
      const blocked = before.some(({ from }) => from.state === 'planned')
      if (blocked && window.closes_ms === null) continue
      const from = byKey.get(window.from)!
      const late = window.closes_ms !== null && window.closes_ms < at.getTime()
      windows.push({
        ...window,
        pieceId: file.piece.id,
        piece: file.piece.name,
        step: line(to),
        running: from.state === 'running',
        acknowledged: heard.get(`${file.piece.id}|${window.from}|${window.to}`)?.name ?? null,
        late: late ? lateSays(from) : null,
        hands: handsOf(from),
      })
    }
  })
  const key = (w: WindowLine) => {
    if (w.closes_ms !== null) return w.closes_ms
    if (w.opens_ms === null) return Infinity
    return w.opens_ms > at.getTime() ? w.opens_ms + 1e12 : 5e14
  }
  windows.sort((a, b) => key(a) - key(b))
  const due = new Map(
    pieces.map(({ file: f }) => [f.piece.id, f.piece.due_on ? endOfDay(f.piece.due_on, hours.zone) : null]),
  )
  /** minutes to spare before the day it is promised for, were nothing to wait for but what hangs on it */
  const spare = (line: MayLine) => {
    const end_ms = due.get(line.pieceId)
    return end_ms ? (end_ms - at.getTime()) / 60_000 - line.behind_min : Infinity
  }
  const closes = (line: MayLine) => Math.min(line.closes_ms ?? Infinity, line.latest_ms ?? Infinity)
  const planned = (line: MayLine) => line.planned?.start_ms ?? Infinity
  may.sort(
    (a, b) =>
      order(closes(a), closes(b)) ||
      order(planned(a), planned(b)) ||
      order(spare(a), spare(b)) ||
      b.behind_min - a.behind_min,
  )
  const since = new Date(at.getTime() - 26 * 3_600_000)
  const news = await db().rows<{ piece_id: number; piece: string; kind: string; says: string; happened_at: Date }>(
    `SELECT logbook.piece_id, piece.name AS piece, logbook.kind, logbook.says, logbook.happened_at
        FROM logbook
        JOIN piece ON piece.id = logbook.piece_id
        WHERE logbook.recorded_at > :since AND logbook.kind IN ('answer', 'question', 'ready', 'gate')
        ORDER BY logbook.id DESC
        LIMIT 8`,
    { since },
  )
  return {
    now_ms: at.getTime(),
    zone: hours.zone,
    mode: useRuntimeConfig().mode,
    closing_ms: closingOf(hours, at.getTime()),
    open: spanAt(hours, at.getTime()),
    nextOpen_ms: nextSpan(hours, at.getTime())[0],
    closing_min: CLOSING_MIN,
    air: {
      reading: last,
      rooms: rooms.filter(r => ownAir(r.room)).map(({ room, ...r }) => ({ id: room.id, name: room.name, ...r })),
      fresh: air !== null,
      dew_C: air ? round(dewPoint_C(air), 1) : null,
      general: judgeAir(GENERAL_AIR, air),
      lacquer: judgeAir(LACQUER_AIR, air),
      /** of what is next in the shop: products that must not go on in this air, with their own limits */
      barred: [...barred].map(([name, says]) => ({ name, says })),
    },
    windows,
    pieces: await readFaces(pieces),
    people: await readHands(),
    unreadable: [...unreadable, ...strange],
    pots: await runningPots(),
    running,
    may,
    mustNot,
    waiting,
    news,
    late: await readLate(new Date(at.getTime() - LATE_SHOWN_MS)),
  }
}

import { DateTime } from 'luxon'
import { wentHome } from '#core/piece'
import type { Answers, QuestionShown, Reply } from '#core/approval'
import { whereabouts } from '#core/acts'
import { db } from '../../database/db'
import { readPiece } from '../piece/read'
import { readPhotograph } from '../piece/photographs'
import { readAsking } from '../plan/asking'
import { readPlan } from '../plan/rows'
import { heldBecause } from '../platform/mail'
import { readShop } from '../shop/rows'
import { workedOut } from './figures'
import { type Hanging, readHanging } from './hangs'
import { freshOutlook } from './outlook'
import { linkOf, type LinkRow } from './links'
import { readQuotations } from '../papers/quotation'
import { type ApprovalRow, expired, type QuestionItemRow, readItems, repliesOf, shownOf } from './rows'

interface Word {
  approval_id: number
  side: 'client' | 'shop'
  says: string
  at: Date
}
const readWords = (ids: readonly number[]): Promise<Word[]> =>
  db().rows<Word>('SELECT approval_id, side, says, at FROM approval_word WHERE approval_id IN (:ids) ORDER BY id', {
    ids: [0, ...ids],
  })
const replied = (answers: Answers): { no: number; reply: Reply }[] => [...answers].map(([no, reply]) => ({ no, reply }))

/** The questions that a link opens: its own, or all of its piece that are or were open. */
async function readQuestions(link: LinkRow, at: Date) {
  const rows = await db().rows<ApprovalRow & { content: string; picture: string; sha256: string }>(
    `SELECT a.*, sn.content, sn.picture, sn.sha256
        FROM approval a
        JOIN plan_snapshot sn ON sn.id = a.snapshot_id
        WHERE a.piece_id = :pieceId AND (a.id = :asked OR (:asked IS NULL AND a.state <> 'superseded'))
        ORDER BY a.state <> 'open', a.id DESC
        LIMIT 20`,
    { pieceId: link.piece_id, asked: link.approval_id },
  )
  const [items, words] = await Promise.all([
    readItems(
      db(),
      rows.map(r => r.id),
    ),
    readWords(rows.map(r => r.id)),
  ])
  return rows.map(a => {
    const its = items.filter(i => i.approval_id === a.id)
    return {
      id: a.id,
      state: expired(a, at) ? ('expired' as const) : a.state,
      shown: shownOf(a.content, a.picture),
      standing: its.map(({ no, state }) => ({ no, state })),
      replies: replied(repliesOf(its)),
      words: words.filter(x => x.approval_id === a.id),
      digest: a.sha256,
      expiresAt: a.expires_at,
      answeredAt: a.answered_at,
      answeredName: a.answered_name,
    }
  })
}

/** Where the piece is, and when it will be ready: what the shop's own timetable says, in words. */
async function whereIs(pieceId: number, at: Date) {
  const file = await readPiece(db(), pieceId)
  const { state, due_on, handed_over_at } = file.piece
  const { zone } = await readShop()
  const dayOf = (moment: Date | string) =>
    DateTime.fromJSDate(new Date(moment), { zone }).setLocale('en-GB').toFormat('cccc d LLLL')
  if (state === 'part-done')
    return { says: 'It went home part done: what must follow stands on its sheet.', dueOn: null, safeOn: null }
  if (state === 'handed-over')
    return { says: `It went home${handed_over_at ? ` on ${dayOf(handed_over_at)}` : ''}.`, dueOn: null, safeOn: null }
  if (state === 'enquiry' || state === 'declined')
    return { says: 'It is not in the shop yet.', dueOn: null, safeOn: null }
  if (state === 'ready') return { says: 'It is ready to be fetched.', dueOn: null, safeOn: null }
  const plan = await readPlan(db(), file)
  const live = plan.steps.filter(st => st.state !== 'skipped')
  const next = live.find(st => st.state === 'planned') ?? null
  const planned = next
    ? await db().row<{ start_at: Date; if_yes: 0 | 1 }>(
        `SELECT start_at, if_yes
            FROM schedule_step
            WHERE step_id = :id AND schedule_id = (SELECT MAX(id) FROM schedule)`,
        { id: next.id },
      )
    : null
  const outlook = await db().row<{ safe_at: Date | null }>(
    `SELECT safe_at
        FROM schedule_piece
        WHERE piece_id = :pieceId AND schedule_id = (SELECT MAX(schedule_id) FROM schedule_piece)`,
    { pieceId },
  )
  const done = new Map(live.map(st => [st.key, st.finished_ms]))
  const drying = plan.waits.some(
    x => x.to === next?.key && (done.get(x.from) ?? Infinity) + (x.min ?? 0) * 60_000 > at.getTime(),
  )
  return {
    says: whereabouts({
      doing: live.filter(st => st.state === 'running').map(st => st.kind),
      begun: live.some(st => st.state === 'done' && st.kind !== 'approval'),
      drying: drying && live.some(st => st.state === 'done' && st.kind !== 'approval'),
      next: next?.kind ?? null,
      nextDay: planned && !planned.if_yes ? dayOf(planned.start_at) : null,
    }),
    dueOn: due_on,
    safeOn: outlook?.safe_at ?? null,
  }
}

/** Photographs that a link shows: those of its question, or all that the shop released. */
const readReleased = (link: LinkRow) =>
  db().rows<{ address: string; caption: string; taken_at: Date | null }>(
    `SELECT address, caption, taken_at
        FROM photograph
        WHERE piece_id = :pieceId AND released
        ORDER BY COALESCE(taken_at, added_at) DESC, id DESC
        LIMIT 60`,
    { pieceId: link.piece_id },
  )

/** What a client's link opens. Reading it never answers. */
export async function clientPage(token: string, at: Date) {
  const link = await linkOf(db(), token, at)
  const whole = link.approval_id === null
  const piece = (await db().row<{ name: string; who: string; shop: string; words: string; state: string }>(
    `SELECT piece.name, piece.state, client.name AS who, shop.name AS shop, shop.page_words AS words
        FROM piece
        JOIN client ON client.id = piece.client_id
        JOIN shop ON shop.id = 1
        WHERE piece.id = :id`,
    { id: link.piece_id },
  ))!
  return {
    ...{ shop: piece.shop, piece: piece.name, who: piece.who, words: piece.words, whole },
    questions: await readQuestions(link, at),
    where: whole ? await whereIs(link.piece_id, at) : null,
    photographs: whole ? await readReleased(link) : [],
    care: whole && (piece.state === 'ready' || wentHome(piece.state)),
    quotations: whole ? (await readQuotations(link.piece_id)).slice(0, 1) : [],
  }
}
/** One released photograph, through a client's link. @throws Fail 404. */
export async function clientPicture(token: string, address: string, size: 'full' | 'thumb', at: Date): Promise<Buffer> {
  const link = await linkOf(db(), token, at)
  const its = await readReleased(link)
  if (!its.some(p => p.address === address)) throw notFound('photograph')
  return readPhotograph(address, size)
}

interface AnswerRow extends ApprovalRow {
  piece: string
  client: string
  asked_by_name: string
  mail_id: number | null
  mail_state: 'waiting' | 'sending' | 'sent' | 'perhaps' | 'failed' | 'back' | null
  mail_error: string | null
  mail_to: string | null
  mail_version: number | null
  sha256: string
  recorded_by_name: string | null
  due_on: string | null
  content: string
  picture: string
}
/** What clients were asked: open ones first, those that close soonest before others. */
export async function answersPage(at: Date, pieceId: number | null = null) {
  const rows = await db().rows<AnswerRow>(
    `SELECT a.*, piece.name AS piece, piece.due_on, client.name AS client, p.name AS asked_by_name,
        r.name AS recorded_by_name, m.id AS mail_id, m.state AS mail_state, m.last_error AS mail_error,
        m.recipient AS mail_to, m.row_version AS mail_version, sn.sha256, sn.content, sn.picture
        FROM approval a
        JOIN piece ON piece.id = a.piece_id
        JOIN client ON client.id = piece.client_id
        JOIN person p ON p.id = a.asked_by
        LEFT JOIN person r ON r.id = a.recorded_by
        JOIN plan_snapshot sn ON sn.id = a.snapshot_id
        LEFT JOIN mail m ON m.id = (SELECT MAX(id) FROM mail WHERE approval_id = a.id)
        WHERE :pieceId IS NULL OR a.piece_id = :pieceId
        ORDER BY a.state <> 'open', IF(a.state = 'open', a.expires_at, NULL), a.id DESC
        LIMIT 200`,
    { pieceId },
  )
  const ids = rows.map(r => r.id)
  const asksToBegin = (a: AnswerRow) => a.state === 'open' && shownOf(a.content).items.some(i => i.kind === 'surface')
  const [items, words, shop, hanging] = await Promise.all([
    readItems(db(), ids),
    readWords(ids),
    readShop(),
    readHanging([...new Set(rows.filter(asksToBegin).map(a => a.piece_id))]),
  ])
  const held = heldBecause(shop, useRuntimeConfig().mode)
  return rows.map(a =>
    answerLine(
      a,
      items.filter(i => i.approval_id === a.id),
      words,
      { held, at, hangs: (asksToBegin(a) && hanging.get(a.piece_id)) || [] },
    ),
  )
}
interface Around {
  held: string
  at: Date
  hangs: readonly Hanging[]
}
function answerLine(a: AnswerRow, items: QuestionItemRow[], words: Word[], { held, at, hangs }: Around) {
  const { items: shown, sums } = shownOf(a.content)
  const replies = repliesOf(items)
  return {
    ...{ id: a.id, pieceId: a.piece_id, piece: a.piece, client: a.client, dueOn: a.due_on },
    state: expired(a, at) ? ('expired' as const) : a.state,
    ...{ likely_minor: a.likely_minor, worst_minor: a.worst_minor },
    readySafe: sums.find(x => x.picks.every(p => !p))?.readySafe ?? null,
    ...{ askedAt: a.asked_at, askedBy: a.asked_by_name, expiresAt: a.expires_at, reminded: a.reminded },
    ...{ answeredAt: a.answered_at, via: a.answered_via, name: a.answered_name, says: a.answer_word },
    recordedBy: a.recorded_by_name,
    mail:
      a.mail_id === null
        ? null
        : {
            ...{ id: a.mail_id, state: a.mail_state!, to: a.mail_to!, rowVersion: a.mail_version! },
            error: (a.mail_state === 'waiting' && held) || (a.mail_error ?? ''),
          },
    digest: a.sha256,
    items: shown.map(i => ({
      ...{ no: i.no, kind: i.kind, title: i.title, says: i.says, options: i.options.map(o => o.says) },
      state: items.find(x => x.no === i.no)?.state ?? ('open' as const),
      reply: replies.get(i.no) ?? null,
    })),
    hangs,
    words: words.filter(x => x.approval_id === a.id),
  }
}

export interface Since {
  likely_minor: number
  worst_minor: number
  readySafe: string
  /** beyond what the client was shown: the answer would not hold */
  beyond: boolean
}
/** What the plan that was asked about costs and takes by now. */
export async function sinceAsked(id: number, at: Date): Promise<Since | null> {
  const a = await db().row<ApprovalRow & { content: string }>(
    `SELECT a.*, sn.content FROM approval a JOIN plan_snapshot sn ON sn.id = a.snapshot_id WHERE a.id = :id`,
    { id },
  )
  if (!a) throw notFound('question to a client')
  const shown: QuestionShown = shownOf(a.content)
  const sum = shown.sums.find(x => x.picks.every(p => !p))
  if (a.state !== 'open' || !sum?.readySafe) return null
  await freshOutlook(a.piece_id, at, { now: false })
  const { likely_minor, worst_minor, readySafe } = await workedOut(db(), a.piece_id, at, await readAsking(at))
  const beyond = worst_minor > sum.worst_minor || readySafe > sum.readySafe
  return { likely_minor, worst_minor, readySafe, beyond }
}

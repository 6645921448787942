import { createHash } from 'node:crypto'
import type { z } from 'zod'
import { canonicalJson, type Json } from '#core/approval'
import type { RouteSlug } from '#core/build'
import { estimate } from '#core/estimate'
import type { Colour, Finish } from '#core/materials'
import type { ItemAnswer, ItemState } from '#core/parts'
import type { Facts } from '#core/piece'
import { sectionSvg } from '#core/section'
import type * as s from '#shared/schemas'
import { db, type Db, transaction } from '../database/db'
import type { ColourShown } from './bands'
import { heldBecause, queueMail } from './mail'
import type { Person } from './people'
import { onPiece, type PieceFile, readPiece } from './pieces'
import { choiceOf, readPlan, type StoredPlan } from './planRows'
import { datesOf, readAsking, sectionFor, verdictsOf } from './plans'
import { log, tell } from './record'
import { readShop } from './shop'

export const sha256 = (text: string) => createHash('sha256').update(text).digest('hex')
export const DAY_MS = 86_400_000

/** What a client is shown about hardware. */
export interface ItemShown {
  about: 'item'
  shop: string
  piece: string
  client: string
  words: string
  mark: string
  item: string
  state: ItemState
  question: string
  answerBy: string | null
}
/** What a client is shown about route and price. Everything on the client's page comes from here. */
export interface Shown {
  about: 'plan'
  shop: string
  piece: string
  client: string
  route: RouteSlug
  finish: Finish
  colour: Colour
  sheen: Facts['sheen']
  tone: string
  words: string
  currency: string
  likely_minor: number
  worst_minor: number
  ways?: readonly { faces: string; route: RouteSlug; finish: Finish }[]
  readyLikely: string
  readySafe: string
  answerBy: string | null
  why: readonly string[]
  gate: string | null
  steps: readonly string[]
}

async function contentOf(
  tx: Db,
  file: PieceFile,
  plan: StoredPlan,
  words: string,
  at: Date,
  answerBy: Date | null,
): Promise<Shown> {
  const shop = await readShop(tx)
  const choice = choiceOf(file)!
  const asking = await readAsking(at, tx)
  const { hours, rates, prices } = asking
  const verdict = await inWorker('judgeOne', { ...asking, facts: file.facts, choice })
  const live = plan.steps.filter(st => st.state !== 'skipped')
  const planned = estimate(live, rates, slug => (Object.hasOwn(prices, slug) ? prices[slug] : undefined)).total_minor
  const dates = datesOf(plan, hours, at)
  const begun = live.some(st => st.state === 'done' && st.kind !== 'approval')
  const waiting_ms = answerBy ? answerBy.getTime() - at.getTime() : 0
  const readySafe = Math.max(dates.readySafe_ms ?? 0, begun ? 0 : verdict.readyWorst_ms) + waiting_ms
  return {
    about: 'plan',
    shop: shop.name,
    piece: file.piece.name,
    client: file.piece.client_name,
    route: choice.route,
    finish: choice.finish,
    colour: choice.colour,
    sheen: file.piece.sheen,
    tone: file.piece.tone,
    words,
    currency: shop.currency,
    likely_minor: planned,
    worst_minor: Math.max(planned, begun ? planned : verdict.worst.total_minor + planned - verdict.likely.total_minor),
    readyLikely: new Date(dates.readyLikely_ms ?? at.getTime()).toISOString().slice(0, 10),
    readySafe: new Date(readySafe).toISOString().slice(0, 10),
    answerBy: answerBy?.toISOString().slice(0, 10) ?? null,
    ...(choice.own
      ? {
          ways: choice.own.map(w => ({
            faces: file.faces
              .filter(f => w.faces.includes(f.id))
              .map(f => `${f.part}, ${f.name}`)
              .join(' · '),
            route: w.route,
            finish: w.finish,
          })),
        }
      : {}),
    why: verdict.reasons.map(r => r.says),
    gate: live.find(st => st.gate?.fallback && st.state !== 'done')?.gate?.fails ?? null,
    steps: live.filter(st => st.kind !== 'approval').map(st => st.title),
  }
}

/** Stores an unchangeable snapshot: canonical JSON, the rendered section, and a SHA-256 over both. */
export async function takeSnapshot(
  tx: Db,
  file: PieceFile,
  plan: StoredPlan,
  reason: 'asked' | 'work-started',
  words: string,
  at: Date,
  answerBy: Date | null = null,
): Promise<{ id: number; shown: Shown }> {
  const shown = await contentOf(tx, file, plan, words, at, answerBy)
  const content = canonicalJson({
    shown: shown as unknown as Json,
    steps: plan.steps.map(st => ({
      key: st.key,
      title: st.title,
      kind: st.kind,
      product: st.product,
      attended_min: st.attended_min,
      amount_ml: st.amount_ml,
      faces: st.faces,
      grits: st.grits,
    })) as unknown as Json,
    waits: plan.waits.map(({ held_ms: _held, least_min: _least, ...w }) => w) as unknown as Json,
  })
  const section = sectionFor(file.facts, plan, verdictsOf(file.facts, choiceOf(file)!, plan))
  const picture = section ? sectionSvg(section) : ''
  const { id } = await tx.run(
    `INSERT INTO plan_snapshot (piece_id, reason, at, content, picture, sha256)
        VALUES (:pieceId, :reason, :at, :content, :picture, :sha)`,
    { pieceId: file.piece.id, reason, at, content, picture, sha: sha256(content + picture) },
  )
  return { id, shown }
}

/** Asks the client: snapshot, an open approval that supersedes older open ones, and a mail in the queue. */
export const ask = (id: number, input: z.infer<typeof s.ask>, person: Person, at: Date) =>
  onPiece(id, at, person, async (tx, file) => {
    const plan = await readPlan(tx, id)
    const step = plan.steps.find(st => st.kind === 'approval' && st.state === 'planned')
    if (!step)
      throw fail(
        409,
        'nothing-to-ask',
        plan.steps.length
          ? 'The client has said yes to this plan.'
          : 'Choose a route first; then there is something to ask.',
      )
    const open = verdictsOf(file.facts, choiceOf(file)!, plan).find(
      v => (v.severity === 'stop' || v.severity === 'forbidden') && !plan.overruled.has(`${v.rule}|${v.step}`),
    )
    if (open) throw fail(409, 'rule', `The plan still breaks a rule: ${open.says}. ${open.mend}`)
    await tx.run(
      `UPDATE approval
          SET state = 'superseded'
          WHERE piece_id = :id AND item_id IS NULL AND band_id IS NULL AND state = 'open'`,
      { id },
    )
    const expires = new Date(at.getTime() + input.days * DAY_MS)
    const snapshot = await takeSnapshot(tx, file, plan, 'asked', input.words, at, expires)
    const made = await tx.run(
      `INSERT INTO approval (piece_id, snapshot_id, step_key, likely_minor, worst_minor, asked_by, asked_at, expires_at)
     VALUES (:id, :snapshotId, :stepKey, :likely, :worst, :personId, :at, :expires)`,
      {
        id,
        snapshotId: snapshot.id,
        stepKey: step.key,
        likely: snapshot.shown.likely_minor,
        worst: snapshot.shown.worst_minor,
        personId: person.id,
        at,
        expires,
      },
    )
    if (file.piece.client_email)
      await queueMail(tx, {
        kind: 'ask',
        recipient: file.piece.client_email,
        pieceId: id,
        approvalId: made.id,
        says: input.words,
      })
    return {
      kind: 'asked',
      says:
        `Client asked: ${Math.round(snapshot.shown.likely_minor / 100)} ${snapshot.shown.currency} likely, ` +
        `${Math.round(snapshot.shown.worst_minor / 100)} at ` +
        `worst${file.piece.client_email ? ', by mail' : '; no mail address, ask by phone'}`,
      result: { id: made.id },
    }
  })

interface ApprovalRow {
  id: number
  piece_id: number
  snapshot_id: number
  step_key: string
  item_id: number | null
  band_id: number | null
  choice: ItemAnswer | null
  state: 'open' | 'yes' | 'no' | 'superseded'
  likely_minor: number
  worst_minor: number
  asked_at: Date
  expires_at: Date
  answered_at: Date | null
  answered_via: 'link' | 'phone' | 'counter' | null
  answered_name: string | null
  answer_word: string
}

const expired = (a: ApprovalRow, at: Date) => a.state === 'open' && a.expires_at < at

type Answer = 'yes' | 'no' | ItemAnswer
const isChoice = (answer: Answer): answer is ItemAnswer => answer !== 'yes' && answer !== 'no'

/**
 * Writes an answer down and does what it means: the plan goes on, the hardware is decided, the band's colour is
 * approved.
 */
export async function settle(
  tx: Db,
  a: ApprovalRow,
  given: { answer: Answer; via: 'link' | 'phone' | 'counter'; name: string; says: string; person: Person | null },
  at: Date,
) {
  if (a.state !== 'open')
    throw fail(
      409,
      'answered',
      a.state === 'superseded'
        ? 'The shop has asked anew since; please use the newer mail.'
        : 'This has been answered already. The shop can ask again.',
    )
  if (expired(a, at)) throw fail(410, 'expired', 'The time for this answer has passed. The shop can ask again.')
  const choice = isChoice(given.answer) ? given.answer : null
  if ((a.item_id !== null) !== (choice !== null))
    throw fail(422, 'invalid', a.item_id === null ? 'Answer yes or no.' : 'Answer replace, match or leave.')
  await tx.run(
    `UPDATE approval
        SET state = :state, choice = :choice, answered_at = :at, answered_via = :via, answered_name = :name,
          answer_word = :says, recorded_by = :personId
        WHERE id = :id`,
    {
      ...given,
      person: undefined,
      state: choice ? 'yes' : given.answer,
      choice,
      id: a.id,
      at,
      personId: given.person?.id ?? null,
    },
  )
  if (choice)
    await tx.run('UPDATE item SET answer = :choice, row_version = row_version + 1 WHERE id = :itemId', {
      choice,
      itemId: a.item_id,
    })
  if (a.band_id !== null) {
    if (given.answer === 'yes') await approveBand(tx, a, given.name, at)
  } else if (given.answer === 'yes') {
    await tx.run(
      `UPDATE plan_step
          SET state = 'done', started_at = :asked, finished_at = :at, row_version = row_version + 1
          WHERE piece_id = :pieceId AND step_key = :key AND state = 'planned'`,
      { asked: a.asked_at, at, pieceId: a.piece_id, key: a.step_key },
    )
    await tx.run(
      `UPDATE piece
          SET accepted_worst_minor = :worst, agreed_minor = :likely, row_version = row_version + 1
          WHERE id = :pieceId`,
      { worst: a.worst_minor, likely: a.likely_minor, pieceId: a.piece_id },
    )
  }
  const heard = given.via === 'phone' ? 'by phone' : 'at the counter'
  const how = given.via === 'link' ? 'by the link' : `${heard}, recorded by ${given.person!.name}`
  await log(tx, {
    pieceId: a.piece_id,
    kind: 'answer',
    says: `Client said ${given.answer} ${how}: ${given.name}${given.says ? `: ${given.says}` : ''}`,
    at,
    recordedAt: at,
    personId: given.person?.id ?? null,
  })
  await tell(tx, 'piece', a.piece_id, at)
}

async function approveBand(tx: Db, a: ApprovalRow, name: string, at: Date) {
  await tx.run(
    'UPDATE band SET approved_at = :at, approved_by = :name, row_version = row_version + 1 WHERE id = :bandId',
    { at, name, bandId: a.band_id },
  )
  await tx.run("UPDATE piece SET colour_sample = 'under-finish', row_version = row_version + 1 WHERE id = :pieceId", {
    pieceId: a.piece_id,
  })
}

/** A yes or no by phone or at the counter, recorded by staff and marked so. */
export async function recordAnswer(id: number, input: z.infer<typeof s.recordAnswer>, person: Person, at: Date) {
  return transaction(async tx => {
    await settle(
      tx,
      await readApproval(tx, id),
      { answer: input.answer, via: input.via, name: input.name, says: input.says, person },
      at,
    )
    return { ok: true }
  })
}

/** A question to a client, locked after its piece, as everywhere. */
export async function readApproval(tx: Db, id: number): Promise<ApprovalRow> {
  await tx.row(
    'SELECT piece.id FROM piece WHERE piece.id = (SELECT piece_id FROM approval WHERE id = :id) FOR UPDATE',
    { id },
  )
  const a = await tx.row<ApprovalRow>('SELECT * FROM approval WHERE id = :id FOR UPDATE', { id })
  if (!a) throw notFound('question to a client')
  return a
}

/** The question that a link belongs to. Links of one question live side by side. */
async function approvalOf(on: Db, token: string): Promise<number> {
  const link = /^[\w-]{43}$/.test(token)
    ? await on.row<{ approval_id: number }>('SELECT approval_id FROM link WHERE hash = :hash', { hash: sha256(token) })
    : null
  if (!link) throw notFound('question')
  return link.approval_id
}

/** Questions asked before hardware could be asked about carry no `about`. */
function shownOf(content: string): Shown | ItemShown | ColourShown {
  const { shown } = JSON.parse(content) as { shown: Shown | ItemShown | ColourShown }
  return { ...shown, about: shown.about ?? 'plan' } as Shown | ItemShown | ColourShown
}

/** The client's page: the stored snapshot and nothing else. Reading it never answers. */
export async function clientPage(token: string, at: Date) {
  const a = (await db().row<ApprovalRow>('SELECT * FROM approval WHERE id = :id', {
    id: await approvalOf(db(), token),
  }))!
  const snapshot = await db().row<{ content: string; picture: string; sha256: string }>(
    'SELECT content, picture, sha256 FROM plan_snapshot WHERE id = :id',
    { id: a.snapshot_id },
  )
  const words = await db().rows<{ side: 'client' | 'shop'; says: string; at: Date }>(
    'SELECT side, says, at FROM approval_word WHERE approval_id = :id ORDER BY id',
    { id: a.id },
  )
  return {
    shown: shownOf(snapshot!.content),
    picture: snapshot!.picture,
    digest: snapshot!.sha256,
    words,
    state: expired(a, at) ? ('expired' as const) : a.state,
    expiresAt: a.expires_at,
    answeredAt: a.answered_at,
    answeredName: a.answered_name,
  }
}

export async function clientAnswers(token: string, input: z.infer<typeof s.clientAnswer>, at: Date) {
  return transaction(async tx => {
    const a = await readApproval(tx, await approvalOf(tx, token))
    if (input.kind === 'question') {
      if (a.state === 'superseded' || expired(a, at))
        throw fail(410, 'expired', 'This question is closed. The shop can ask again.')
      const asked = await tx.row<{ n: number }>(
        "SELECT COUNT(*) AS n FROM approval_word WHERE approval_id = :id AND side = 'client'",
        { id: a.id },
      )
      if ((asked?.n ?? 0) >= 30) throw fail(429, 'slow-down', 'That is a lot of questions; please call the shop.')
      await tx.run("INSERT INTO approval_word (approval_id, side, says, at) VALUES (:id, 'client', :says, :at)", {
        id: a.id,
        says: input.says,
        at,
      })
      await log(tx, {
        pieceId: a.piece_id,
        kind: 'question',
        says: `Client asks: ${input.says}`,
        at,
        recordedAt: at,
        personId: null,
      })
      await tell(tx, 'piece', a.piece_id, at)
    } else {
      await settle(tx, a, { answer: input.kind, via: 'link', name: input.name, says: input.says, person: null }, at)
    }
    return { ok: true }
  })
}

export async function replyWord(id: number, input: z.infer<typeof s.replyWord>, person: Person, at: Date) {
  return transaction(async tx => {
    const a = await readApproval(tx, id)
    await tx.run(
      "INSERT INTO approval_word (approval_id, side, says, at, person_id) VALUES (:id, 'shop', :says, :at, :personId)",
      { id, says: input.says, at, personId: person.id },
    )
    const { piece } = await readPiece(tx, a.piece_id)
    if (piece.client_email)
      await queueMail(tx, {
        kind: 'reply',
        recipient: piece.client_email,
        pieceId: a.piece_id,
        approvalId: a.state === 'open' ? a.id : null,
        says: input.says,
      })
    await log(tx, {
      pieceId: a.piece_id,
      kind: 'reply',
      says: `Answered the client: ${input.says}`,
      at,
      recordedAt: at,
      personId: person.id,
    })
    await tell(tx, 'piece', a.piece_id, at)
    return { ok: true }
  })
}

const aboutOf = (a: ApprovalRow) => {
  if (a.item_id !== null) return 'item' as const
  if (a.band_id !== null) return 'colour' as const
  return 'plan' as const
}

/** What clients were asked, open ones first. */
export async function answersPage(at: Date, pieceId: number | null = null) {
  const rows = await db().rows<
    ApprovalRow & {
      piece: string
      client: string
      asked_by_name: string
      mail_id: number | null
      mail_state: 'waiting' | 'sending' | 'sent' | 'perhaps' | 'failed' | null
      mail_error: string | null
      mail_to: string | null
      mail_version: number | null
      sha256: string
      recorded_by_name: string | null
      holds: number
      content: string
    }
  >(
    `SELECT a.*, piece.name AS piece, client.name AS client, p.name AS asked_by_name,
        r.name AS recorded_by_name, m.id AS mail_id, m.state AS mail_state, m.last_error AS mail_error,
        m.recipient AS mail_to, m.row_version AS mail_version, sn.sha256,
        IF(a.item_id IS NULL AND a.band_id IS NULL, '', sn.content) AS content,
        (
          SELECT COUNT(*)
            FROM plan_step st
            WHERE st.piece_id = a.piece_id AND st.state = 'planned' AND st.kind <> 'approval'
        ) AS holds
        FROM approval a
        JOIN piece ON piece.id = a.piece_id
        JOIN client ON client.id = piece.client_id
        JOIN person p ON p.id = a.asked_by
        LEFT JOIN person r ON r.id = a.recorded_by
        JOIN plan_snapshot sn ON sn.id = a.snapshot_id
        LEFT JOIN mail m ON m.id = (SELECT MAX(id) FROM mail WHERE approval_id = a.id)
        WHERE :pieceId IS NULL OR a.piece_id = :pieceId
        ORDER BY a.state <> 'open', a.id DESC
        LIMIT 200`,
    { pieceId },
  )
  const words = await db().rows<{ approval_id: number; side: 'client' | 'shop'; says: string; at: Date }>(
    `SELECT approval_id, side, says, at
        FROM approval_word
        WHERE approval_id IN (SELECT id FROM approval WHERE :pieceId IS NULL OR piece_id = :pieceId)
        ORDER BY id`,
    { pieceId },
  )
  const held = heldBecause(await readShop(), useRuntimeConfig().mode)
  return rows.map(({ ...a }) => ({
    id: a.id,
    pieceId: a.piece_id,
    piece: a.piece,
    client: a.client,
    state: expired(a, at) ? ('expired' as const) : a.state,
    likely_minor: a.likely_minor,
    worst_minor: a.worst_minor,
    askedAt: a.asked_at,
    askedBy: a.asked_by_name,
    expiresAt: a.expires_at,
    answeredAt: a.answered_at,
    via: a.answered_via,
    name: a.answered_name,
    says: a.answer_word,
    recordedBy: a.recorded_by_name,
    mail:
      a.mail_id === null
        ? null
        : {
            id: a.mail_id,
            state: a.mail_state!,
            error: (a.mail_state === 'waiting' && held) || (a.mail_error ?? ''),
            to: a.mail_to!,
            rowVersion: a.mail_version!,
          },
    digest: a.sha256,
    about: aboutOf(a),
    holds: aboutOf(a) === 'plan' ? a.holds : 0,
    choice: a.choice,
    question: a.content ? (shownOf(a.content) as ItemShown | ColourShown).question : null,
    words: words.filter(w => w.approval_id === a.id),
  }))
}

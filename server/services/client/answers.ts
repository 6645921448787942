import type { z } from 'zod'
import { type Answers, type QuestionShown, type Reply, standingOf, sumOfReplies, takes } from '#core/approval'
import { paintsOver } from '#core/build'
import type * as s from '#shared/schemas'
import { db, type Db, transaction } from '../../database/db'
import { readPiece } from '../piece/read'
import { readAsking } from '../plan/asking'
import { log, tell } from '../platform/log'
import { queueMail } from '../platform/mail'
import type { Person } from '../shop/person'
import type { Effect } from './compose'
import { agree, formerEffects, takeEffect } from './effects'
import { workedOut } from './figures'
import { linkOf, questionOf } from './links'
import { freshOutlook } from './outlook'
import { overtakePlan } from './overtake'
import { type ApprovalRow, expired, type QuestionItemRow, readApproval, readItems, repliesOf, shownOf } from './rows'

interface Kept {
  shown: QuestionShown
  effects: Effect[]
  items: QuestionItemRow[]
}
async function readKept(tx: Db, a: ApprovalRow): Promise<Kept> {
  const { content, picture } = (await tx.row<{ content: string; picture: string }>(
    'SELECT content, picture FROM plan_snapshot WHERE id = :id',
    { id: a.snapshot_id },
  ))!
  const shown = shownOf(content, picture)
  const items = await readItems(tx, [a.id])
  const { effects } = JSON.parse(content) as { effects?: Effect[] }
  return { shown, items, effects: effects ?? formerEffects(items, shown) }
}

interface Given {
  replies: readonly { no: number; reply: Reply }[]
  via: 'link' | 'phone' | 'counter'
  name: string
  says: string
  person: Person | null
}

/** @throws Fail 409 or 410 for a question that is closed, with words for a client. */
function checkOpen(a: ApprovalRow, at: Date): void {
  if (a.state === 'superseded') throw fail(409, 'answered', 'The shop has asked anew since; please use the newer mail.')
  if (a.state !== 'open') throw fail(409, 'answered', 'This has been answered already. The shop can ask again.')
  if (expired(a, at)) throw fail(410, 'expired', 'The time for this answer has passed. The shop can ask again.')
}
/** @throws Fail 422 for a reply that no item takes, 409 for one to an item that is closed. */
function checkReplies({ shown, items }: Kept, replies: Given['replies']): void {
  for (const { no, reply } of replies) {
    const item = shown.items.find(i => i.no === no)
    if (!item || !takes(item, reply)) throw fail(422, 'invalid', 'This question does not take that answer.')
    if (items.find(i => i.no === no)?.state !== 'open')
      throw fail(409, 'answered', 'This has been answered already. The shop can ask again.')
  }
}

/**
 * Does what is asked still hold? A worst price or a safe date beyond those that were shown overtakes the question.
 * @returns whether it does
 */
async function stillHolds(tx: Db, a: ApprovalRow, sum: { worst_minor: number; readySafe: string }, at: Date) {
  const now = await workedOut(tx, a.piece_id, at, await readAsking(at, tx))
  return now.worst_minor <= sum.worst_minor && now.readySafe <= sum.readySafe
}

/** Writes answers down and does what they mean. Returns false where the question was overtaken instead. */
export async function settle(tx: Db, a: ApprovalRow, given: Given, at: Date): Promise<boolean> {
  checkOpen(a, at)
  const kept = await readKept(tx, a)
  const { shown, items, effects } = kept
  checkReplies(kept, given.replies)
  const replies: Answers = new Map([...repliesOf(items), ...given.replies.map(r => [r.no, r.reply] as const)])
  const kindOf = (no: number) => shown.items.find(i => i.no === no)?.kind
  const yesTo = (kind: string) => [...replies].some(([no, r]) => kindOf(no) === kind && typeof r === 'number')
  const saysYes = given.replies.find(r => kindOf(r.no) === 'surface' && typeof r.reply === 'number')
  // as it stands now: what was agreed beside the surface before counts in both, what was found is not in the plan yet
  const before = [...repliesOf(items)].filter(([no]) => kindOf(no) !== 'found')
  const standing = saysYes && sumOfReplies(shown, new Map([...before, [saysYes.no, 0]]))
  if (standing && standing.readySafe && !(await stillHolds(tx, a, standing, at))) {
    await overtakePlan(tx, a.piece_id)
    await log(tx, {
      ...{ pieceId: a.piece_id, kind: 'answer', at, recordedAt: at, personId: null },
      says: `${given.name} said yes to a price or a date that does not hold any more; the client is to be asked again`,
    })
    await tell(tx, 'piece', a.piece_id, at)
    return false
  }
  for (const { no, reply } of given.replies) {
    const item = items.find(i => i.no === no)!
    const state = typeof reply === 'number' ? 'yes' : reply
    item.state = state
    item.option_no = typeof reply === 'number' ? reply : null
    await tx.run('UPDATE question_item SET state = :state, option_no = :option WHERE id = :id', {
      ...{ id: item.id, state, option: item.option_no },
    })
    const its = { tx, a, item, reply, by: given.name, at, withFound: yesTo('found') }
    await takeEffect(its, effects[no - 1]!)
    if (kindOf(no) === 'found' && typeof reply === 'number') await foundLater(its, effects, before)
  }
  const sum = sumOfReplies(shown, replies)
  const priced = given.replies.some(r => typeof r.reply === 'number' && shown.items.find(i => i.no === r.no)?.priced)
  const agreed = shown.items.some(i => i.kind === 'surface') ? yesTo('surface') : true
  if (sum && priced && agreed && sum.readySafe) await agree(tx, a.piece_id, sum)
  await tx.run(
    `UPDATE approval
        SET state = :state, answered_at = :at, answered_via = :via, answered_name = :name, answer_word = :says,
          recorded_by = :personId
        WHERE id = :id`,
    {
      ...{ id: a.id, state: standingOf(items.map(i => i.state)), at, via: given.via, name: given.name },
      ...{ says: given.says, personId: given.person?.id ?? null },
    },
  )
  const heard = given.via === 'phone' ? 'by phone' : 'at the counter'
  const how = given.via === 'link' ? 'by the link' : `${heard}, recorded by ${given.person!.name}`
  await log(tx, {
    ...{ pieceId: a.piece_id, kind: 'answer', at, recordedAt: at, personId: given.person?.id ?? null },
    says: `Client ${saidOf(shown, given.replies)} ${how}: ${given.name}${given.says ? `: ${given.says}` : ''}`,
  })
  await tell(tx, 'piece', a.piece_id, at)
  return true
}
/** What was found is wanted after the surface was agreed to without it. */
async function foundLater(
  its: Parameters<typeof takeEffect>[0],
  effects: readonly Effect[],
  before: [number, Reply][],
) {
  const [no, reply] = before.find(([n]) => effects[n - 1]?.kind === 'surface') ?? []
  if (no !== undefined && typeof reply === 'number')
    await takeEffect({ ...its, reply, withFound: true }, effects[no - 1]!)
}
/** How the log tells what was answered. */
export function saidOf({ items }: QuestionShown, replies: Given['replies']): string {
  const one = replies.map(({ no, reply }) => {
    const item = items.find(i => i.no === no)!
    const about = item.kind === 'surface' ? '' : ` to "${item.title}"`
    if (reply === 'no') return `said no${about}`
    if (reply === 'talk') return `wants to talk about ${item.kind === 'surface' ? 'it' : `"${item.title}"`}`
    return item.options.length > 1 ? `chose "${item.options[reply]!.says}"${about}` : `said yes${about}`
  })
  return one.join('; ')
}

/** Paint over wood is agreed to in writing: by the mail, or signed at the counter. */
async function refuseByPhone(tx: Db, a: ApprovalRow, replies: Given['replies']) {
  const { shown } = await readKept(tx, a)
  const yes = replies.flatMap(({ no, reply }) => {
    const item = shown.items.find(i => i.no === no && i.kind === 'surface')
    return item && typeof reply === 'number' ? (item.options[reply] ?? []) : []
  })
  const { choice, context } = await readPiece(tx, a.piece_id)
  // the plan as it stands is the first option; questions from before say it only by the plan
  const paints = yes.some(o => o.inWriting ?? (choice !== null && paintsOver(choice, context)))
  if (paints)
    throw fail(
      422,
      'in-writing',
      'Paint over wood is hard to undo, and wants a yes in writing: by the mail, or signed at the counter.',
      { via: 'In writing, or signed at the counter.' },
    )
}

/** Answers by phone or at the counter, recorded by staff and marked so. */
export async function recordAnswer(id: number, input: z.infer<typeof s.recordAnswer>, person: Person, at: Date) {
  const asked = await db().row<{ piece_id: number }>('SELECT piece_id FROM approval WHERE id = :id', { id })
  if (asked) await freshOutlook(asked.piece_id, at)
  return transaction(async tx => {
    const a = await readApproval(tx, id)
    if (input.via === 'phone') await refuseByPhone(tx, a, input.replies)
    return { holds: await settle(tx, a, { ...input, person }, at) }
  })
}

const MOST_WORDS = 30
async function askBack(tx: Db, a: ApprovalRow, says: string, at: Date): Promise<void> {
  if (a.state === 'superseded' || expired(a, at))
    throw fail(410, 'expired', 'This question is closed. The shop can ask again.')
  const asked = await tx.row<{ n: number }>(
    "SELECT COUNT(*) AS n FROM approval_word WHERE approval_id = :id AND side = 'client'",
    { id: a.id },
  )
  if ((asked?.n ?? 0) >= MOST_WORDS) throw fail(429, 'slow-down', 'That is a lot of questions; please call the shop.')
  await tx.run("INSERT INTO approval_word (approval_id, side, says, at) VALUES (:id, 'client', :says, :at)", {
    ...{ id: a.id, says, at },
  })
  await log(tx, {
    ...{ pieceId: a.piece_id, kind: 'question', at, recordedAt: at, personId: null },
    says: `Client asks: ${says}`,
  })
  await tell(tx, 'piece', a.piece_id, at)
}

/** A client answers, or asks back. `holds`: false where price or date moved since; nothing is agreed to then. */
export async function clientAnswers(token: string, input: z.output<typeof s.clientAnswer>, at: Date) {
  if (input.replies.length > 0) await freshOutlook((await linkOf(db(), token, at)).piece_id, at)
  return transaction(async tx => {
    const link = await linkOf(tx, token, at)
    const a = await readApproval(tx, await questionOf(tx, link, input.questionId))
    if (input.asks) await askBack(tx, a, input.asks, at)
    if (input.replies.length === 0) return { holds: true }
    return { holds: await settle(tx, a, { ...input, via: 'link', person: null }, at) }
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
        ...{ kind: 'reply', recipient: piece.client_email, pieceId: a.piece_id, says: input.says },
        approvalId: a.state === 'open' ? a.id : null,
      })
    await log(tx, {
      ...{ pieceId: a.piece_id, kind: 'reply', at, recordedAt: at, personId: person.id },
      says: `Answered the client: ${input.says}`,
    })
    await tell(tx, 'piece', a.piece_id, at)
    return { ok: true }
  })
}

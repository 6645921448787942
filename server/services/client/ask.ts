import type { z } from 'zod'
import type { Step } from '#core/acts'
import { canonicalJson, type ItemShown, type Json, type QuestionShown, withoutName } from '#core/approval'
import { type Letter, letterOf } from '#core/papers'
import type * as s from '#shared/schemas'
import { type Db, rehearse } from '../../database/db'
import { onPiece } from '../piece/pieces'
import { readPiece } from '../piece/read'
import type { PieceFile } from '../piece/rows'
import { readAsking } from '../plan/asking'
import { readPlan, type StoredPlan } from '../plan/rows'
import { DAY_MS, sha256 } from '../platform/digest'
import { readOwnWords } from '../platform/letterWords'
import { queueMail } from '../platform/mail'
import type { Person } from '../shop/person'
import { readShop } from '../shop/rows'
import { type Composed, composed, type Draft, type Effect } from './compose'
import { workedOut } from './figures'
import { freshOutlook } from './outlook'
import { overtakeItems, overtakePlan } from './overtake'

export type AskInput = z.output<typeof s.ask>
/** As JSON would read it again: what is undefined is left out. */
const plain = (value: unknown): Json => JSON.parse(JSON.stringify(value)) as Json
/** What of the plan is kept beside what was shown, to tell later what changed. */
const KEPT = [
  ...(['key', 'title', 'kind', 'product', 'attended_min', 'amount_ml', 'faces', 'grits', 'method', 'coat'] as const),
  ...(['passes', 'fields', 'typed'] as const),
]
const stepsKept = (steps: readonly Step[]) => steps.map(st => Object.fromEntries(KEPT.map(k => [k, st[k]])))

/** What a client was or is shown, kept for good: canonical JSON and a SHA-256 over it. */
async function keepShown(tx: Db, pieceId: number, reason: 'asked' | 'work-started', content: string, at: Date) {
  const { id } = await tx.run(
    `INSERT INTO plan_snapshot (piece_id, reason, at, content, picture, sha256)
        VALUES (:pieceId, :reason, :at, :content, '', :sha)`,
    { pieceId, reason, content, at, sha: sha256(content) },
  )
  return id
}

/** Keeps a plan as it was when work on it began. */
export async function keepBegun(tx: Db, file: PieceFile, plan: StoredPlan, at: Date): Promise<void> {
  const {
    held: _held,
    told: _told,
    breaks: _breaks,
    out: _out,
    ...figures
  } = await workedOut(tx, file.piece.id, at, await readAsking(at, tx))
  await keepShown(
    tx,
    file.piece.id,
    'work-started',
    canonicalJson(plain({ figures, steps: stepsKept(plan.steps), waits: plan.waits })),
    at,
  )
}

/** Photographs of this piece that go with a question, which releases them. */
async function picturesFor(tx: Db, pieceId: number, addresses: readonly string[]) {
  if (addresses.length === 0) return []
  const rows = await tx.rows<{ address: string; caption: string }>(
    'SELECT address, caption FROM photograph WHERE piece_id = :pieceId AND address IN (:addresses)',
    { pieceId, addresses },
  )
  if (rows.length < addresses.length) throw fail(422, 'unknown-reference', 'There is no such photograph of this piece.')
  await tx.run('UPDATE photograph SET released = TRUE WHERE piece_id = :pieceId AND address IN (:addresses)', {
    pieceId,
    addresses,
  })
  return addresses.map(a => rows.find(r => r.address === a)!)
}

const numbered = (drafts: readonly Draft[]): ItemShown[] => drafts.map(({ item }, i) => ({ ...item, no: i + 1 }))

async function shownFor(tx: Db, file: PieceFile, input: AskInput, { drafts, sums }: Composed, expires: Date) {
  const shop = await readShop(tx)
  const { piece } = file
  const shown: QuestionShown = {
    ...{ version: 3, shop: shop.name, piece: piece.name, client: { ref: piece.client_id }, currency: shop.currency },
    ...{ words: withoutName(input.words, piece.client_name), answerBy: expires.toISOString().slice(0, 10) },
    photographs: await picturesFor(tx, piece.id, input.photographs),
    ...{ items: numbered(drafts), sums },
  }
  return shown
}

/** The step that a yes to the surface passes. @throws Fail 409 where there is none. */
function stepAsked(plan: StoredPlan): string {
  const step = plan.steps.find(st => st.kind === 'approval' && st.state === 'planned')
  if (step) return step.key
  throw fail(
    409,
    'nothing-to-ask',
    plan.steps.length
      ? 'The client has said yes to this plan.'
      : 'Choose a route first; then there is something to ask.',
  )
}

interface Opened {
  id: number
  shown: QuestionShown
  says: string
}
/**
 * Opens a question: what is shown and what each answer does, kept for good; older open ones about the same are
 * overtaken; a letter in the queue.
 */
export async function openQuestion(
  tx: Db,
  file: PieceFile,
  input: AskInput,
  person: Person,
  at: Date,
  { mailed = true } = {},
): Promise<Opened> {
  const { piece } = file
  const plan = await readPlan(tx, file)
  const stepKey = input.surface ? stepAsked(plan) : ''
  const expires = new Date(at.getTime() + input.days * DAY_MS)
  const made = await composed(tx, file, input, at)
  const shown = await shownFor(tx, file, input, made, expires)
  const effects: Effect[] = made.drafts.map(d => d.effect)
  const content = canonicalJson(
    plain({ shown, effects, base: made.base, steps: stepsKept(plan.steps), waits: plan.waits }),
  )
  const snapshotId = await keepShown(tx, piece.id, 'asked', content, at)
  if (input.surface || input.found) await overtakePlan(tx, piece.id)
  await overtakeItems(tx, piece.id, {
    itemIds: made.drafts.flatMap(d => d.itemId ?? []),
    bandIds: input.bands,
    date: input.dueOn !== null,
    cost: input.mostMinor !== null,
  })
  for (const { itemId } of made.drafts)
    if (itemId)
      await tx.run('UPDATE item SET answer = NULL, row_version = row_version + 1 WHERE id = :itemId', { itemId })
  const { likely_minor = 0, worst_minor = 0 } = shown.sums.find(x => x.picks.every(p => !p)) ?? {}
  const { id } = await tx.run(
    `INSERT INTO approval (piece_id, snapshot_id, step_key, likely_minor, worst_minor, asked_by, asked_at, expires_at)
        VALUES (:pieceId, :snapshotId, :stepKey, :likely_minor, :worst_minor, :personId, :at, :expires)`,
    { ...{ pieceId: piece.id, snapshotId, stepKey, likely_minor, worst_minor }, personId: person.id, at, expires },
  )
  for (const [i, { item, itemId, bandId }] of made.drafts.entries())
    await tx.run(
      `INSERT INTO question_item (approval_id, no, kind, item_id, band_id)
          VALUES (:id, :no, :kind, :itemId, :bandId)`,
      { id, no: i + 1, kind: item.kind, itemId, bandId },
    )
  if (mailed && piece.client_email)
    await queueMail(tx, {
      ...{ kind: 'ask', recipient: piece.client_email, pieceId: piece.id, approvalId: id },
      says: shown.words,
    })
  return { id, shown, says: saidOf(shown, mailed ? piece.client_email : null) }
}
/** How the log tells what was asked. */
function saidOf({ items, sums, currency }: QuestionShown, mail: string | null): string {
  const sum = sums.find(x => x.picks.every(p => !p))
  const money = (minor: number) => `${Math.round(minor / 100)} ${currency}`
  const sent = mail ? ', by mail' : '; no mail address, ask by phone'
  const how = mail === null ? '' : sent
  const asks = items.map(i => (i.kind === 'surface' ? null : i.says || i.title)).filter(Boolean)
  const price = sum && items.some(i => i.kind === 'surface')
  const priced = price ? [`${money(sum.likely_minor)} likely, ${money(sum.worst_minor)} at worst`] : []
  return `Client asked: ${[...priced, ...asks].join('; ')}${how}`.slice(0, 1000)
}

export async function ask(id: number, input: AskInput, person: Person, at: Date) {
  await freshOutlook(id, at)
  return onPiece(id, at, person, async (tx, file) => {
    const { id: asked, says } = await openQuestion(tx, file, input, person, at)
    return { kind: 'asked', says, result: { id: asked } }
  })
}

/** The very page and letter that would go out; nothing is written, nothing is sent. */
export async function preview(
  id: number,
  input: AskInput,
  at: Date,
): Promise<{ shown: QuestionShown; who: string; letter: Letter; to: string }> {
  await freshOutlook(id, at)
  return rehearse(async tx => {
    const file = await readPiece(tx, id, true)
    if (input.surface) stepAsked(await readPlan(tx, file))
    const made = await composed(tx, file, input, at)
    const expires = new Date(at.getTime() + input.days * DAY_MS)
    const shown = await shownFor(tx, file, input, made, expires)
    const { client_name: who, client_email: to } = file.piece
    const shop = await readShop(tx)
    const link = `${useRuntimeConfig().publicBase}/answer/…`
    return {
      shown,
      who,
      to,
      letter: letterOf(
        'ask',
        { shop: shop.name, piece: shown.piece, who, says: input.words, link },
        await readOwnWords(tx, 'ask'),
      ),
    }
  })
}

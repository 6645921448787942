import { blocks } from '#core/safety'
import type { z } from 'zod'
import { canonicalJson, type Json } from '#core/approval'
import { type BuildUp, everyday, paintsOver } from '#core/build'
import { estimate } from '#core/estimate'
import { ROUTE_NAMES } from '#core/piece'
import { type ColourDrawn, type FilmDrawn, surfaceSvg } from '#core/section'
import type * as s from '#shared/schemas'
import type { Db } from '../../database/db'
import { onPiece } from '../piece/pieces'
import type { PieceFile } from '../piece/rows'
import { readAsking } from '../plan/asking'
import { datesOf, sectionFor, verdictsOf } from '../plan/judge'
import { isOverruled, readPlan, type StoredPlan } from '../plan/rows'
import { DAY_MS } from '../platform/digest'
import type { Person } from '../shop/person'
import { readShop } from '../shop/rows'
import { keepShown, openQuestion } from './questions'
import type { Shown } from './rows'

const IN_WRITING =
  'Paint hides the wood, and taking it off again costs more than it did: please give your yes or no in writing.'

/** A build-up in everyday words. */
const wordsOf = (buildUp: BuildUp, { context }: PieceFile) => ({
  work: ROUTE_NAMES[buildUp.ground],
  surface: buildUp.layers.flatMap(l => everyday(l, context) ?? []),
})

async function contentOf(
  tx: Db,
  file: PieceFile,
  plan: StoredPlan,
  words: string,
  at: Date,
  answerBy: Date | null,
): Promise<Shown> {
  const shop = await readShop(tx)
  const choice = file.choice!
  const [main, ...rest] = choice.buildUps
  const asking = await readAsking(at, tx)
  const { hours, rates, prices } = asking
  const verdict = await inWorker('judgeOne', { ...asking, context: file.context, choice })
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
    version: 2,
    ...wordsOf(main, file),
    sheen: file.piece.sheen,
    tone: file.piece.tone,
    words,
    currency: shop.currency,
    likely_minor: planned,
    worst_minor: Math.max(planned, begun ? planned : verdict.worst.total_minor + planned - verdict.likely.total_minor),
    readyLikely: new Date(dates.readyLikely_ms ?? at.getTime()).toISOString().slice(0, 10),
    readySafe: new Date(readySafe).toISOString().slice(0, 10),
    answerBy: answerBy?.toISOString().slice(0, 10) ?? null,
    ways: rest.map(b => ({
      faces: file.faces
        .filter(f => b.faces?.includes(f.id))
        .map(f => `${f.part}, ${f.name}`)
        .join(' · '),
      ...wordsOf(b, file),
    })),
    why: [...verdict.reasons.map(r => r.says), ...(paintsOver(choice, file.context) ? [IN_WRITING] : [])],
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
      method: st.method,
      coat: st.coat,
      passes: st.passes,
      fields: st.fields,
      typed: st.typed,
    })) as unknown as Json,
    waits: plan.waits.map(({ held_ms: _held, least_min: _least, sections: _sections, ...w }) => w) as unknown as Json,
  })
  const section = sectionFor(file.context, plan, verdictsOf(file, plan, at))
  const layers = file.choice!.buildUps.flatMap(b => b.layers)
  /** in everyday words, without what was done to lay it */
  const says = ({ layer, step, name }: FilmDrawn | ColourDrawn): string | null => {
    const own = layers.find(l => l.id === layer)
    if (own) return everyday(own, file.context)
    return step === null ? name : null
  }
  const picture = section ? surfaceSvg(section, says) : ''
  return { id: await keepShown(tx, { pieceId: file.piece.id, reason, content, picture }, at), shown }
}

/** Asks the client: snapshot, an open approval that supersedes older open ones, and a mail in the queue. */
export const ask = (id: number, input: z.infer<typeof s.ask>, person: Person, at: Date) =>
  onPiece(id, at, person, async (tx, file) => {
    const plan = await readPlan(tx, file)
    const step = plan.steps.find(st => st.kind === 'approval' && st.state === 'planned')
    if (!step)
      throw fail(
        409,
        'nothing-to-ask',
        plan.steps.length
          ? 'The client has said yes to this plan.'
          : 'Choose a route first; then there is something to ask.',
      )
    const open = verdictsOf(file, plan, at).find(v => blocks(v, isOverruled(plan, v)))
    if (open) throw fail(409, 'rule', `The plan still breaks a rule: ${open.says}. ${open.mend}`)
    const expires = new Date(at.getTime() + input.days * DAY_MS)
    const snapshot = await takeSnapshot(tx, file, plan, 'asked', input.words, at, expires)
    const made = await openQuestion(
      tx,
      {
        about: 'plan',
        piece: file.piece,
        snapshotId: snapshot.id,
        stepKey: step.key,
        likely_minor: snapshot.shown.likely_minor,
        worst_minor: snapshot.shown.worst_minor,
        words: input.words,
        expires,
        mailed: true,
      },
      person,
      at,
    )
    return {
      kind: 'asked',
      says:
        `Client asked: ${Math.round(snapshot.shown.likely_minor / 100)} ${snapshot.shown.currency} likely, ` +
        `${Math.round(snapshot.shown.worst_minor / 100)} at ` +
        `worst${file.piece.client_email ? ', by mail' : '; no mail address, ask by phone'}`,
      result: { id: made },
    }
  })

/** What a piece costs and when it is ready: as it stands, and as it would be if the client chose otherwise. */
import { blocks } from '#core/safety'
import { atHome, type BuildUp, finishMaterial, paintsOver } from '#core/build'
import { estimate } from '#core/estimate'
import { doneSaid } from '#core/acts'
import { everydayOf } from '#core/materials'
import type { Asking } from '#core/ground'
import { ROUTE_AT_HOME } from '#core/piece'
import { type ColourDrawn, type FilmDrawn, surfaceSvg } from '#core/section'
import type { Db } from '../../database/db'
import { keptOutlook, type Outlook } from '../piece/outlook'
import { readPiece } from '../piece/read'
import type { PieceFile } from '../piece/rows'
import { begunIn, datesOf, sectionFor, verdictsOf } from '../plan/judge'
import { isOverruled, readPlan, type StoredPlan } from '../plan/rows'
import { readExtras } from './extras'

export interface Figures {
  likely_minor: number
  worst_minor: number
  /** ISO days; '': there is no plan */
  readyLikely: string
  readySafe: string
}
/** What is done to the piece, in a client's words. */
export interface Told {
  says: string
  /** what becomes of the old surface */
  work: string
  lines: string[]
  does: string[]
  steps: string[]
  stands: { durability: number; repairable: number } | null
  picture: string
  why: string[]
  gate: string | null
  inWriting: boolean
}

export const IN_WRITING =
  'Paint hides the wood, and taking it off again costs more than it did: please give your yes or no in writing.'
const NO_FIGURES: Figures = { likely_minor: 0, worst_minor: 0, readyLikely: '', readySafe: '' }
const dayOf = (ms: number) => new Date(ms).toISOString().slice(0, 10)
const later = (a: number, b: Date | null | undefined) => Math.max(a, b?.getTime() ?? 0)

/** Undone again, whatever it wrote: what would be if. */
export async function asIf<T>(tx: Db, work: () => Promise<T>): Promise<T> {
  await tx.run('SAVEPOINT as_if')
  const back = () => tx.run('ROLLBACK TO SAVEPOINT as_if')
  let made: T
  try {
    made = await work()
  } catch (error) {
    // after a deadlock all is rolled back already, and the whole is tried again
    await back().catch(() => {})
    throw error
  }
  await back()
  return made
}

/** By how much all else in the shop makes a piece later than it would be alone, ms. */
async function heldUp(tx: Db, id: number, own: { likely_ms: number; safe_ms: number }) {
  const scheduled = await tx.row<Outlook>(
    `SELECT likely_at, safe_at
        FROM schedule_piece
        WHERE piece_id = :id AND schedule_id = (SELECT MAX(schedule_id) FROM schedule_piece)`,
    { id },
  )
  const row = scheduled ?? (await keptOutlook(tx, id))
  return {
    likely_ms: later(own.likely_ms, row?.likely_at) - own.likely_ms,
    safe_ms: later(own.safe_ms, row?.safe_at) - own.safe_ms,
  }
}

/** A build-up in everyday words. */
const wordsOf = (buildUp: BuildUp, { context }: PieceFile) => [
  ROUTE_AT_HOME[buildUp.ground],
  ...buildUp.layers.flatMap(l => atHome(l, context) ?? []),
]
/** What a layer of a piece's cut is called, in everyday words and without what was done to lay it. */
export function atHomeOf({ choice, context }: Pick<PieceFile, 'choice' | 'context'>) {
  const layers = (choice?.buildUps ?? []).flatMap(b => b.layers)
  return ({ layer, step, name }: FilmDrawn | ColourDrawn): string | null => {
    const own = layers.find(l => l.id === layer)
    if (own) return atHome(own, context)
    return step === null ? name : null
  }
}
function picturesOf(file: PieceFile, plan: StoredPlan, at: Date): string {
  const section = sectionFor(file.context, plan, verdictsOf(file, plan, at))
  return section ? surfaceSvg(section, atHomeOf(file)) : ''
}

export interface Worked extends Figures {
  /** a rule that the plan breaks and nobody lifted, in words; null: none */
  breaks: string | null
  /** why its way is ruled out on this piece; null: it is not */
  out: string | null
  told: Told
  held: { likely_ms: number; safe_ms: number }
}
/**
 * A piece as its rows stand now. `held`: by how much the shop holds it up, where that is known already.
 */
export async function workedOut(
  tx: Db,
  id: number,
  at: Date,
  asking: Asking,
  held: Worked['held'] | null = null,
): Promise<Worked> {
  const file = await readPiece(tx, id)
  const { choice, context } = file
  const plan = await readPlan(tx, file)
  const none: Told = {
    says: '',
    work: '',
    lines: [],
    does: [],
    steps: [],
    stands: null,
    picture: '',
    why: [],
    gate: null,
    inWriting: false,
  }
  if (!choice || plan.steps.length === 0)
    return { ...NO_FIGURES, told: none, held: { likely_ms: 0, safe_ms: 0 }, breaks: null, out: null }
  const open = verdictsOf(file, plan, at).find(v => blocks(v, isOverruled(plan, v)))
  const live = plan.steps.filter(st => st.state !== 'skipped')
  const begun = live.some(st => st.state === 'done' && st.kind !== 'approval')
  const asked = { ...asking, context, choice }
  const [verdict, left] = await Promise.all([
    inWorker('judgeOne', asked),
    begun ? inWorker('leftAtWorst', { ...asked, live: { steps: live, waits: plan.waits }, done: begunIn(plan) }) : null,
  ])
  const price = (slug: string) => (Object.hasOwn(asking.prices, slug) ? asking.prices[slug] : undefined)
  const planned = estimate(live, asking.rates, price).total_minor
  const extras = (await readExtras(tx, id)).reduce((sum, e) => sum + e.price_minor, 0)
  const dates = datesOf(plan, asking.hours, at)
  const own = {
    likely_ms: dates.readyLikely_ms ?? at.getTime(),
    safe_ms: Math.max(dates.readySafe_ms ?? 0, left?.ready_ms ?? verdict.readyWorst_ms, at.getTime()),
  }
  const more = held ?? (await heldUp(tx, id, own))
  const [main, ...rest] = choice.buildUps
  const [work, ...surface] = wordsOf(main, file)
  const material = finishMaterial(main.layers, context)
  const home = material && everydayOf(material.slug)
  const name = home?.says ?? material?.name
  const finish = name && name.slice(0, 1).toUpperCase() + name.slice(1)
  const ways = rest.map(b => {
    const faces = file.faces.filter(f => b.faces?.includes(f.id)).map(f => `${f.part}, ${f.name}`)
    return `${faces.join(' · ')}: ${wordsOf(b, file).join(', ')}`
  })
  return {
    likely_minor: planned + extras,
    worst_minor:
      planned + extras + (left?.more_minor ?? Math.max(0, verdict.worst.total_minor - verdict.likely.total_minor)),
    readyLikely: dayOf(own.likely_ms + more.likely_ms),
    readySafe: dayOf(own.safe_ms + more.safe_ms),
    held: more,
    out: verdict.reasons.find(r => r.standing === 'ruled-out')?.says ?? null,
    breaks: open ? `${open.says}. ${open.mend}` : null,
    told: {
      says: finish ?? work!,
      work: work!,
      lines: [
        [...surface, file.piece.sheen].filter(Boolean).join(' · '),
        ...ways,
        ...(paintsOver(choice, context) ? [IN_WRITING] : []),
        ...(home ? [[home.look, home.care].filter(Boolean).join(' ')] : []),
      ],
      does: doneSaid(live),
      steps: live.filter(st => st.kind !== 'approval').map(st => st.title),
      stands: material && { durability: material.durability, repairable: material.repairable },
      picture: picturesOf(file, plan, at),
      why: [],
      inWriting: paintsOver(choice, context),
      gate: live.find(st => st.gate?.fallback && st.state !== 'done')?.gate?.fails ?? null,
    },
  }
}

/** What a piece will take, before anybody agreed: hours, price, the earliest honest day, and what would change it. */
import { DateTime } from 'luxon'
import { estimate } from '#core/estimate'
import { leavesOn } from '#core/schedule'
import type { Choice } from '#core/build'
import type { RecordedFacts } from '#core/piece'
import { db } from '../../database/db'
import { readPiece } from '../piece/read'
import type { PieceFile } from '../piece/rows'
import { readAsking } from '../plan/asking'
import { readPlan } from '../plan/rows'
import { readFetchDays } from '../shop/rooms'
import { readHours } from '../shop/rows'
import { freshOutlook } from './outlook'

/** What is measured over a telephone may be a tenth more. */
const LARGER = 1.1
/** One thing that is not known, were it so. */
const DOUBTS: readonly { says: string; facts: (f: PieceFile['facts']) => PieceFile['facts'] | null }[] = [
  {
    says: 'If the old paint or varnish holds lead',
    facts: f => (f.lead === 'yes' ? null : { ...f, lead: 'yes' }),
  },
  {
    says: 'If it is a tenth larger each way',
    facts: f => ({
      ...f,
      faces: f.faces.map(x => ({
        ...x,
        ...{ length_mm: x.length_mm * LARGER, width_mm: x.width_mm * LARGER, area_m2: x.area_m2 * LARGER ** 2 },
      })),
    }),
  },
  {
    says: 'If it is worn through in places',
    facts: f =>
      f.findings.some(x => x.kind === 'worn-through')
        ? null
        : { ...f, findings: [...f.findings, ...f.faces.slice(0, 1).map(face => foundOn(face.id))] },
  },
  {
    says: 'If it is veneered',
    facts: f =>
      f.faces.some(x => x.substrate === 'veneer')
        ? null
        : { ...f, faces: f.faces.map(x => (x.shape === 'flat' ? { ...x, substrate: 'veneer' as const } : x)) },
  },
]
const foundOn = (faceId: number): RecordedFacts['findings'][number] =>
  ({
    ...({ faceId, kind: 'worn-through', grade: 3, wish: 'mend', note: '' } as const),
    place: { shape: 'unplaced' },
  }) as never

/** What changes the price by less is not said. */
const WORTH_SAYING = 0.01
export interface Doubt {
  says: string
  /** this way is ruled out then */
  out: boolean
  hours_min: number
  price_minor: number
}

/** The first day on which it leaves, in half and in nine of ten lives of the shop, were it agreed today. */
async function earliest(id: number, at: Date) {
  const [found, hours, fetchDays] = await Promise.all([freshOutlook(id, at), readHours(), readFetchDays()])
  const leaves = (end: Date | null) =>
    end && leavesOn(DateTime.fromJSDate(end, { zone: hours.zone }).toISODate()!, fetchDays, hours.closures)
  return found && { likely: leaves(found.likely_at), safe: leaves(found.safe_at) }
}

export async function estimatePage(id: number, at: Date) {
  const file = await readPiece(db(), id)
  const { choice, context, facts } = file
  const plan = await readPlan(db(), file)
  if (!choice || plan.steps.length === 0) return { ready: false as const }
  const asking = await readAsking(at)
  const judge = (changedFacts: PieceFile['facts'], its: Choice) =>
    inWorker('judgeOne', { ...asking, context: { ...context, facts: changedFacts }, choice: its })
  const base = await judge(facts, choice)
  const doubts: Doubt[] = []
  for (const doubt of DOUBTS) {
    const other = doubt.facts(facts)
    const then = other && (await judge(other, choice))
    if (!then) continue
    const hours_min = then.likely.attended_min - base.likely.attended_min
    const price_minor = then.likely.total_minor - base.likely.total_minor
    const out = then.standing === 'ruled-out' && base.standing !== 'ruled-out'
    if (out || price_minor > WORTH_SAYING * base.likely.total_minor)
      doubts.push({ says: doubt.says, hours_min, price_minor, out })
  }
  const labour = estimate(
    plan.steps.filter(st => st.state !== 'skipped'),
    asking.rates,
    slug => (Object.hasOwn(asking.prices, slug) ? asking.prices[slug] : undefined),
  )
  return {
    ready: true as const,
    ...{ likely_min: labour.attended_min, worst_min: Math.max(labour.attended_min, base.worst.attended_min) },
    ...{ likely_minor: labour.total_minor, worst_minor: Math.max(labour.total_minor, base.worst.total_minor) },
    earliest: await earliest(id, at),
    reasons: base.reasons.map(r => r.says),
    doubts,
  }
}

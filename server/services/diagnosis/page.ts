/** What pages show of faults: one with its suspects and questions, those of a piece, what the shop learnt. */
import {
  type Found,
  MENDS,
  mendSteps,
  type MendSlug,
  nextAsks,
  type OwnGrades,
  type Sign,
  signOf,
  SIGNS,
  suspects,
} from '#core/diagnose'
import { db } from '../../database/db'
import { readPiece } from '../piece/read'
import type { PieceFile } from '../piece/rows'
import { readPlan, type StoredPlan } from '../plan/rows'
import { mendAt } from './mendAt'
import { answered, type FaultRow, gradesOf, readFaults, readFound, readGrades } from './rows'

const OTHERS = 6
/** All that follows from what is known and said by now. */
function faultShown(fault: FaultRow, file: PieceFile, plan: StoredPlan, found: Found, grades: OwnGrades) {
  const own = plan.steps.find(st => st.id === fault.step_id)
  const stepsIn = (mend: MendSlug) => mendSteps(MENDS[mend], mendAt(file, plan, own), 'mend').length
  const sign = signOf(fault.sign)
  // its own cause does not count for itself
  const before = fault.cause ? { ...found, [fault.cause]: (found[fault.cause] ?? 1) - 1 } : found
  const evidence = { facts: fault.facts, said: answered(fault.said), found: before, grades }
  const passed = fault.said.filter(a => a.yes === null).map(a => a.ask)
  return {
    ...{ id: fault.id, pieceId: fault.piece_id, stepId: fault.step_id, rowVersion: fault.row_version },
    ...{ sign: fault.sign, name: sign.name, now: sign.now, at: fault.at, by: fault.by_name, facts: fault.facts },
    said: fault.said.map(a => ({ ...a, asks: sign.asks[a.ask]!.asks })),
    next: nextAsks(sign, evidence, passed).map(ask => ({ ask, asks: sign.asks[ask]!.asks })),
    suspects: suspects(sign, evidence).map(x => causeShown(sign, x, stepsIn)),
    ...{ mend: fault.mend, mendedAt: fault.mended_at, cause: fault.cause, keepNext: Boolean(fault.keep_next) },
    ...{ note: fault.note, cases: Object.values(before).reduce((sum, n) => sum + n, 0) },
  }
}
type Suspected = ReturnType<typeof suspects>[number]
function causeShown(sign: Sign, { cause, certainty, pro, contra }: Suspected, stepsIn: (mend: MendSlug) => number) {
  const { says, mend, next } = sign.causes[cause]!
  const reason = (r: (typeof pro)[number]) => ({ fact: r.fact, asks: r.ask && sign.asks[r.ask]!.asks, yes: r.yes })
  const { says: mendSays, steps, anew } = { anew: false, ...MENDS[mend] }
  const count = stepsIn(mend)
  return {
    ...{ cause, says, certainty, next, mend, mendSays, anew, steps: count },
    /** the next coat of the plan mends it */
    inPlan: count === 0 && steps.length > 0,
    ...{ pro: pro.map(reason), contra: contra.map(reason) },
  }
}

/** Steps at which something may show: what began or is done, the newest first. */
function stepsOf(plan: StoredPlan) {
  return plan.steps
    .filter(st => (st.state === 'done' || st.state === 'running') && st.kind !== 'approval')
    .reverse()
    .map(st => ({ id: st.id, title: st.title, gate: st.gate && { look: st.gate.look, fails: st.gate.fails } }))
}
export async function faultsPage(pieceId: number) {
  const faults = await readFaults(db(), pieceId)
  const file = await readPiece(db(), pieceId)
  const plan = await readPlan(db(), file)
  const [found, grades] = [await readFound(db()), await readGrades(db())]
  return {
    steps: stepsOf(plan),
    faults: faults.map(f => faultShown(f, file, plan, found(f.sign), gradesOf(f.sign, grades))),
    photographs: await db().rows<{ address: string; caption: string }>(
      'SELECT address, caption FROM photograph WHERE piece_id = :pieceId ORDER BY id DESC LIMIT :most',
      { pieceId, most: OTHERS },
    ),
  }
}
const SEASONS = [
  'winter',
  'winter',
  'spring',
  'spring',
  'spring',
  'summer',
  'summer',
  'summer',
  'autumn',
  'autumn',
  'autumn',
  'winter',
] as const
/** What the shop learns: faults by sign and cause, by product and season. Whose they were only that person is told. */
export async function learntPage(personId: number) {
  const rows = await db().rows<{
    sign: string
    cause: string | null
    product: string | null
    month: number
    mine: 0 | 1
    piece_id: number
  }>(
    `SELECT sign, cause, product, MONTH(at) AS month, person_id = :personId AS mine, piece_id
        FROM fault
        ORDER BY id DESC
        LIMIT 5000`,
    { personId },
  )
  const known = rows.filter(r => SIGNS.some(x => x.slug === r.sign))
  const count = (key: (r: (typeof known)[number]) => string | null) => {
    const sums = new Map<string, { n: number; pieces: Set<number> }>()
    for (const r of known) {
      const k = key(r)
      if (k === null) continue
      const sum = sums.get(k) ?? { n: 0, pieces: new Set() }
      sums.set(k, { n: sum.n + 1, pieces: sum.pieces.add(r.piece_id) })
    }
    return [...sums]
      .map(([says, { n, pieces }]) => ({ says, n, pieces: [...pieces].slice(0, 8) }))
      .sort((a, b) => b.n - a.n)
  }
  const grades = await readGrades(db())
  const causeOf = ({ sign, cause }: (typeof known)[number]) =>
    cause === null ? null : `${signOf(sign).name}: ${signOf(sign).causes[cause]?.says ?? cause}`
  return {
    grades,
    byCause: count(causeOf),
    byProduct: count(r => r.product),
    bySeason: count(r => SEASONS[r.month - 1] ?? null),
    mine: count(r => (r.mine ? signOf(r.sign).name : null)),
  }
}

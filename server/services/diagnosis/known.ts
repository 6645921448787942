/** What is known of a step before anybody is asked what went wrong with it. */
import { does } from '#core/acts'
import { type Fact, factsOf, type Known, type KnownPot } from '#core/diagnose'
import { taken } from '#core/materials'
import { toleranceOf } from '#core/mixing'
import { sumOf } from '#core/units'
import { speciesOf } from '#core/wood'
import type { Db } from '../../database/db'
import { faceArea, type PieceFile } from '../piece/rows'
import type { PlannedStep, StoredPlan } from '../plan/rows'
import { DAY_MS } from '../platform/digest'
import { readStepAir } from '../shop/roomAir'

/** Woods whose own oil keeps films from drying (common practice). */
const OILY = ['teak', 'rosewood']
const WET_PCT = 12
const MINUTE_MS = 60_000

interface Can {
  ml: number | null
  received_on: string | null
}
/** What the step took from lots, and when the oldest of them came in. */
const canOf = (on: Db, stepId: number) =>
  on.row<Can>(
    `SELECT SUM(u.amount) AS ml, MIN(lot.received_on) AS received_on
        FROM lot_use u
        JOIN lot ON lot.id = u.lot_id
        WHERE u.step_id = :stepId`,
    { stepId },
  )
interface PotRow {
  id: number
  pot_min: number | null
  smallest_g: number
  mixed_at: Date | null
  person_id: number
  sample_id: number | null
}
/** The pot that the step took from last, against what was written for it and against the sample that was agreed. */
async function potOf(on: Db, pieceId: number, step: PlannedStep): Promise<KnownPot | null> {
  const pot = await on.row<PotRow>(
    `SELECT batch.id, batch.pot_min, batch.smallest_g, batch.mixed_at, batch.person_id,
            (SELECT MAX(band.batch_id)
               FROM band
               WHERE band.piece_id = :pieceId AND band.step_key = :key
                 AND band.approved_at IS NOT NULL AND band.withdrawn_at IS NULL) AS sample_id
        FROM pot_use u
        JOIN batch ON batch.id = u.batch_id
        WHERE u.step_id = :stepId
        ORDER BY u.id DESC
        LIMIT 1`,
    { pieceId, key: step.key, stepId: step.id },
  )
  if (!pot) return null
  const lines = await on.rows<{ wanted_g: number; poured_g: number | null }>(
    'SELECT wanted_g, poured_g FROM batch_line WHERE batch_id = :id',
    { id: pot.id },
  )
  const weighed = lines.length > 1 && lines.every(l => l.poured_g !== null)
  const off = (l: (typeof lines)[number]) => Math.abs((l.poured_g ?? 0) - l.wanted_g)
  const { mixed_at, pot_min } = pot
  return {
    pastLife:
      pot_min !== null &&
      mixed_at !== null &&
      step.started_ms !== null &&
      step.started_ms > mixed_at.getTime() + pot_min * MINUTE_MS,
    byOther: step.spells.length > 0 && step.spells.every(w => w.personId !== pot.person_id),
    asWritten: weighed ? lines.every(l => off(l) <= toleranceOf(l.wanted_g, pot.smallest_g)) : null,
    ofSample: pot.sample_id === null ? null : pot.sample_id === pot.id,
  }
}
/** Was a wait before it cut short, or its window over? */
function waitsKept(plan: StoredPlan, step: PlannedStep) {
  const started = step.started_ms
  const since = plan.waits
    .filter(w => w.to === step.key)
    .flatMap(w => {
      const from = plan.steps.find(st => st.key === w.from)?.finished_ms
      return from && started !== null ? { w, min: (started - from) / MINUTE_MS } : []
    })
  return {
    waitCutShort: since.some(({ w, min }) => min < w.min),
    windowMissed: since.some(({ w, min }) => w.max !== null && min > w.max),
  }
}
function woodOf({ faces, facts, moisture }: PieceFile, step: PlannedStep) {
  const its = faces.filter(f => step.faces.includes(f.id))
  const woods = its.map(f => speciesOf(f.species))
  const read = moisture.filter(m => step.faces.includes(m.face_id)).at(-1)
  return {
    pores: woods[0]?.pores ?? null,
    drinksUnevenly: woods.some(x => x.blotches),
    tannin: woods.some(x => x.tannin),
    oily: its.some(f => OILY.includes(f.species)),
    upright: its.some(f => f.orientation === 'vertical'),
    area_m2: sumOf(its, faceArea),
    wetWood: read !== undefined && read.reading_pct > WET_PCT,
    contaminated: facts.findings.some(
      f => ['water-beads', 'fish-eyes'].includes(f.kind) && step.faces.includes(f.faceId),
    ),
  }
}

/** A judgement is about what was laid before it on its faces: what is known of that tells causes apart. */
export function judgedBy(plan: StoredPlan, step: PlannedStep): PlannedStep {
  if (!step.gate) return step
  const at = plan.steps.findIndex(st => st.id === step.id)
  const laid = plan.steps.slice(0, at).findLast(st => {
    const shares = st.faces.length === 0 || step.faces.length === 0 || st.faces.some(f => step.faces.includes(f))
    return st.state === 'done' && st.product !== null && shares
  })
  return laid ?? step
}
/** @param asked null: nothing is known but what is seen */
export async function knownOf(on: Db, file: PieceFile, plan: StoredPlan, asked: PlannedStep | null): Promise<Fact[]> {
  if (!asked) return []
  const step = judgedBy(plan, asked)
  const moment = new Date(step.finished_ms ?? step.started_ms ?? Date.now())
  const air = step.started_ms === null ? null : (await readStepAir(moment, on))(step.id)
  const can = await canOf(on, step.id)
  const at = plan.steps.findIndex(st => st.id === step.id)
  const before = plan.steps.slice(0, at).filter(st => st.state === 'done' && st.faces.some(f => step.faces.includes(f)))
  const lays = (st: PlannedStep) => does(st, 'finishes') && st.product !== null
  const under = before.findLast(lays)
  const rubbed = plan.steps.some(
    st => st.kind === 'rub-out' && st.state === 'done' && st.faces.some(f => step.faces.includes(f)),
  )
  const known: Known = {
    under: under ? (taken(file.context.shelf, under)?.base ?? null) : null,
    pot: await potOf(on, file.piece.id, step),
    rubbed: lays(step) || step.kind === 'rub-out' ? rubbed : null,
    ...{ step, before, air: air && { temperature_C: air.temperature_C, rh: air.rh } },
    material: step.product ? taken(file.context.shelf, step) : null,
    used_ml: can?.ml ? Number(can.ml) : null,
    can_d: can?.received_on ? (moment.getTime() - Date.parse(can.received_on)) / DAY_MS : null,
    gloss: does(step, 'finishes') ? file.facts.sheen === 'gloss' : null,
    ...waitsKept(plan, step),
    ...woodOf(file, step),
    oldLayers:
      (file.choice?.buildUps ?? []).some(b => b.ground.startsWith('keep')) || before.some(st => st.kind === 'scuff'),
  }
  return factsOf(known)
}

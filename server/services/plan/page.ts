import type { z } from 'zod'
import { cautionsOfStep, does, measuredSaid, wears } from '#core/acts'
import { materialCost_minor } from '#core/estimate'
import { loopsOf, notesOf, planDifference, roundEndingAt, seenAt } from '#core/plan'
import { mendOf, RULES } from '#core/rules'
import { mayOverrule } from '#core/safety'
import { sumOf } from '#core/units'
import type * as s from '#shared/schemas'
import { db } from '../../database/db'
import { readActiveOne } from '../bench/active'
import { measuresLine } from '../bench/measures'
import { sectionLine } from '../bench/sections'
import { benchView } from '../bench/view'
import { onPiece } from '../piece/pieces'
import { readPiece } from '../piece/read'
import type { PieceFile } from '../piece/rows'
import { cannotRead } from '../platform/readable'
import { readAirAhead, readAir } from '../shop/air'
import { readStepAir } from '../shop/roomAir'
import { readVapour } from '../breath/vapour'
import { spreadOfShop } from '../record/spread'
import { licencesOn } from '../shop/licences'
import { checkProved, overruling, type Person } from '../shop/person'
import { clockIn, readHours } from '../shop/rows'
import { DAY_MS, readAsking, readPrices } from './asking'
import { type Cost, costOf } from './cost'
import { readAgreed } from '../client/agreed'
import { readExtras } from '../client/extras'
import { learntFor } from '../diagnosis/learnt'
import { readEdits } from './edits'
import { foundSince } from './found'
import { datesOf, judged, sectionFor } from './judge'
import { readPlan, type StoredPlan } from './rows'
import { strangeInPlan } from './strange'
import { readUsed, usedSaid } from './used'
import { readWetCoat } from './wetCoat'

/** Photographs taken at the end of steps, the oldest first. */
const readStepPictures = (pieceId: number) =>
  db().rows<{ step_id: number; address: string }>(
    'SELECT step_id, address FROM photograph WHERE piece_id = :pieceId AND step_id IS NOT NULL ORDER BY id',
    { pieceId },
  )

const FIGURES_FOR_MS = 15 * 60_000
type Figures = Pick<Awaited<ReturnType<typeof workOut>>, 'budgets' | 'expected'>
/** Of pieces as they are kept: one that changed is another. */
const figuresOf = new WeakMap<PieceFile, { at_ms: number; figures: Promise<Figures> }>()
/** Veneer sums, and while nothing has begun what it comes to with the chance of failing counted in. */
async function workOut(file: PieceFile, plan: StoredPlan, at: Date) {
  const asked = { context: file.context, choice: file.choice! }
  const begun = plan.steps.some(st => !does(st, 'words') && st.state !== 'planned')
  return begun
    ? { ...(await inWorker('plan', asked)), expected: null }
    : inWorker('planFigures', { ...(await readAsking(at)), ...asked })
}
function figures(file: PieceFile, plan: StoredPlan, at: Date): Promise<Figures> {
  const known = figuresOf.get(file)
  if (known && Math.abs(at.getTime() - known.at_ms) < FIGURES_FOR_MS) return known.figures
  const worked = workOut(file, plan, at)
  figuresOf.set(file, { at_ms: at.getTime(), figures: worked })
  worked.catch(() => figuresOf.delete(file))
  return worked
}

export async function planPage(id: number, person: Person, at: Date) {
  const kept = await readActiveOne(id)
  const file = kept?.file ?? (await readPiece(db(), id))
  const plan = kept?.plan ?? (await readPlan(db(), file))
  const choice = file.choice
  if (!choice || plan.steps.length === 0) return { ready: false as const, rowVersion: file.piece.row_version }
  const strange = strangeInPlan(plan)
  if (strange) throw cannotRead(strange)
  const hours = await readHours()
  const [{ air }, airOf] = await Promise.all([readAir(at), readStepAir(at)])
  const judging = kept?.verdicts ?? judged(file, plan, at)
  const verdicts = judging.standing(at)
  const wetCoat = await readWetCoat(db(), at, clockIn(hours.zone, at))
  const bench = benchView({
    ...{ plan, hours, at, airOf, wetCoat, vapourOf: await readVapour(at) },
    verdicts: judging.start(at),
    shelf: file.context.shelf,
  })
  const live = plan.steps.filter(st => st.state !== 'skipped')
  const { budgets, expected } = await figures(file, plan, at)
  const pictures = await readStepPictures(id)
  const used = await readUsed(db(), id)
  const faceNames = new Map(file.faces.map(f => [f.id, `${f.part}, ${f.name}`]))
  const price = await readPrices()
  const spread = await spreadOfShop(db(), at)
  const extras = await readExtras(db(), id)
  const cost = await costOf(id, plan, extras)
  const dates = datesOf(plan, hours, at)
  return {
    ready: true as const,
    ...(await readEdits(id)),
    /** while nothing has begun: with the chance of failing counted in, as the route said it */
    expected,
    loops: loopsOf(
      plan.steps.filter(st => st.state !== 'skipped'),
      file.context,
    ),
    found: await foundSince(file, plan),
    since: await sinceAgreed(id, plan, cost, dates, file.piece.agreed_minor, file.piece.accepted_worst_minor),
    rowVersion: file.piece.row_version,
    choice,
    licences: licencesOn(file.piece.licences ?? [], at),
    now_ms: at.getTime(),
    acceptedWorst_minor: file.piece.accepted_worst_minor,
    agreed_minor: file.piece.agreed_minor,
    learnt: await learntFor(id),
    extras: extras.map(({ says, price_minor }) => ({ says, price_minor })),
    steps: plan.steps.map(st => ({
      ...st,
      faceNames: st.faces.map(f => faceNames.get(f) ?? ''),
      cautions: cautionsOfStep(st, file.context, { shared: Boolean(file.piece.one_room) && !st.outside }),
      keeps: wears(st) ? file.facts.marks : [],
      notes: notesOf(st, file.context, plan.waits),
      start: bench.get(st.key)!,
      sections: st.state === 'done' ? null : sectionLine(st, plan, file),
      measures: measuresLine(st, plan),
      seen: st.state === 'running' ? seenAt(st, plan.steps.slice(plan.steps.indexOf(st) + 1)) : [],
      measuredSaid: measuredSaid(st.measured ?? {}),
      usedSaid: usedSaid(st, used.get(st.id)),
      /** what its round passes by, where a round ends with it */
      passTest: roundEndingAt(live, st.key, file.context)?.passes ?? null,
      cost_minor: materialCost_minor(st, price),
      /** how far its product really goes here, where that is known and differs */
      spread: st.state === 'planned' && st.amount_ml !== null ? spread(st) : null,
      pictures: pictures.filter(p => p.step_id === st.id).map(p => p.address),
    })),
    waits: plan.waits,
    ahead: await readAirAhead(at, hours),
    airNow: air,
    hours,
    wetCoat,
    verdicts: verdicts.map(v => ({
      ...v,
      overruled: plan.overruled.get(`${v.rule}|${v.step}`) ?? null,
      mayOverrule: mayOverrule(v.severity, overruling(person, 'edit-plan')),
      oneTouch: mendOf(v),
    })),
    section: sectionFor(file.context, plan, verdicts),
    budgets: budgets.map(b => ({ species: b.group.species, ...b.budget })),
    dates,
    cost,
    left_min: sumOf(
      plan.steps.filter(st => st.state === 'planned'),
      st => st.attended_min,
    ),
    film_um: sumOf(sectionFor(file.context, plan, verdicts)?.films ?? [], l => l.um),
  }
}

/**
 * What changed since the client said yes: steps, minutes, price, days; null while nothing was agreed. Beyond the worst
 * price or the latest date that was accepted, a new answer is needed.
 */
async function sinceAgreed(
  id: number,
  plan: StoredPlan,
  cost: Cost,
  dates: ReturnType<typeof datesOf>,
  agreed_minor: number | null,
  worst_minor: number | null,
) {
  const agreed = agreed_minor === null ? null : await readAgreed(id)
  if (!agreed || agreed_minor === null) return null
  const dayOf = (ms: number | null) => (ms === null ? 0 : Math.floor(ms / DAY_MS))
  const difference = planDifference(
    [...agreed.steps],
    plan.steps.filter(st => st.state !== 'skipped'),
  )
  const dearer = worst_minor !== null && cost.planned_minor > worst_minor
  const told = (iso: string) => (iso ? dayOf(Date.parse(iso)) : dayOf(dates.readyLikely_ms))
  const later = dayOf(dates.readyLikely_ms) > told(agreed.readySafe) ? ('date' as const) : null
  return {
    ...difference,
    price_minor: cost.planned_minor - agreed_minor,
    days: dayOf(dates.readyLikely_ms) - told(agreed.readyLikely),
    needsAnswer: dearer ? ('price' as const) : later,
  }
}

/** Overrules a verdict with a word why. Nobody lifts what is forbidden. */
export const overrule = (id: number, input: z.infer<typeof s.overrule>, person: Person, at: Date) =>
  onPiece(id, at, person, async (tx, file) => {
    const rule = RULES.find(r => r.slug === input.rule)
    const plan = await readPlan(tx, file)
    if (!rule || !plan.steps.some(st => st.key === input.stepKey)) throw notFound('verdict')
    if (!mayOverrule(rule.severity, overruling(person, 'edit-plan')))
      throw fail(
        403,
        'forbidden',
        rule.severity === 'forbidden'
          ? `This is forbidden until evidence lifts it. ${rule.mend}`
          : 'Your role has no right to overrule a stop.',
      )
    if (rule.severity === 'stop') checkProved(person)
    await tx.run(
      `INSERT INTO overrule (piece_id, rule, step_key, word, person_id, at)
          VALUES (:id, :rule, :stepKey, :word, :personId, :at)`,
      { ...input, id, personId: person.id, at },
    )
    return {
      kind: 'overruled',
      says: `Overruled at "${plan.steps.find(st => st.key === input.stepKey)!.title}": ${input.word}. ${rule.reason}`,
      result: { ok: true },
    }
  })

import type { z } from 'zod'
import { type Step, TAKES_MARKS } from '#core/acts'
import type { Choice, Way } from '#core/build'
import { estimate, materialCost_minor, type Rates } from '#core/estimate'
import { choiceFor, lessInvasive } from '#core/ground'
import { finishOfSchool } from '#core/house'
import { factsOfFaces, type Facts } from '#core/piece'
import { type GateRecord, loopsOf, notesOf, planDifference } from '#core/plan'
import { judgePlan, mendOf, RULES, type Verdict } from '#core/rules'
import { cautionText, mayOverrule } from '#core/safety'
import { type LayerState, sectionOf } from '#core/section'
import { forecast, type Hours } from '#core/timetable'
import { sumOf } from '#core/units'
import type * as s from '#shared/schemas'
import { db, type Db } from '../database/db'
import type { Asking } from '../workers/heavy'
import { benchView } from './benchView'
import { readHouse } from './house'
import type { Person } from './people'
import { onPiece, type PieceFile, readPiece } from './pieces'
import { readEdits } from './planEdits'
import { choiceOf, insertStep, type PlannedStep, readPlan, readWetCoat, type StoredPlan, writeWaits } from './planRows'
import { cannotRead, strangeInPlan } from './readable'
import { clockIn, readAirAhead, readAir, readHours, readShop } from './shop'

export async function readRates(on: Db = db()): Promise<Rates> {
  const shop = await readShop(on)
  return { hour_minor: shop.hour_minor, materialMarkup_bp: shop.material_markup_bp, tax_bp: shop.tax_bp }
}

/** Price per litre by class: the dearest product of that class on the shelf. */
async function readPriceList(on: Db): Promise<Record<string, number>> {
  const rows = await on.rows<{ class: string; price: number }>(
    'SELECT class, MAX(price_minor) AS price FROM product GROUP BY class',
  )
  return Object.fromEntries(rows.map(r => [r.class, r.price]))
}
/** The same as core asks for it; undefined where the class's default counts. */
export async function readPrices(on: Db = db()): Promise<(slug: string) => number | undefined> {
  const prices = new Map(Object.entries(await readPriceList(on)))
  return slug => prices.get(slug)
}

const DAY_MS = 86_400_000

/** How gates went in this shop: tries, failures, and failures expected. */
export async function readGateRecord(on: Db = db()): Promise<Record<string, GateRecord>> {
  const rows = await on.rows<{ slug: string; tries: number; fails: number; expected: number }>(
    `SELECT gate_slug AS slug, COUNT(*) AS tries, SUM(gate_result = 'fail') AS fails,
        SUM(gate_chance) AS expected
        FROM plan_step
        WHERE gate_result IS NOT NULL
        GROUP BY gate_slug`,
  )
  return Object.fromEntries(
    rows.map(({ slug, ...r }) => [
      slug,
      { tries: Number(r.tries), fails: Number(r.fails), expected: Number(r.expected) },
    ]),
  )
}

/** What every judging of routes asks of the shop. */
export const readAsking = async (at: Date, on: Db = db()): Promise<Asking> => ({
  rates: await readRates(on),
  hours: await readHours(on),
  prices: await readPriceList(on),
  record: await readGateRecord(on),
  now_ms: at.getTime(),
})

const beganWork = (plan: StoredPlan) => plan.steps.some(st => st.kind !== 'approval' && st.state !== 'planned')

/**
 * All routes judged on this piece, or on some of its faces alone; the advised one, and the milder one beside the
 * chosen.
 */
export async function routesPage(id: number, query: z.infer<typeof s.routeQuery>, at: Date, signal: AbortSignal) {
  const file = await readPiece(db(), id)
  const chosen = choiceOf(file)
  const { faces, ...picked } = query
  const house = await readHouse()
  const choice: Choice = {
    route: 'strip-chemical',
    ...picked,
    house: { ...house, ...picked.house },
    ...(faces || !chosen?.own ? {} : { own: chosen.own }),
  }
  const facts = faces ? factsOfFaces(file.facts, f => faces.includes(f)) : file.facts
  const advice = await inWorker('judgeAll', { ...(await readAsking(at)), facts, choice }, { signal })
  const own = faces ? chosen?.own?.find(w => w.faces.some(f => faces.includes(f))) : undefined
  const taken = faces ? (own?.route ?? null) : (chosen?.route ?? null)
  const beside = taken ? lessInvasive(advice.verdicts, taken) : null
  return {
    started: beganWork(await readPlan(db(), id)),
    choice,
    advised: advice.advised,
    verdicts: advice.verdicts,
    chosen: taken,
    beside: beside?.route ?? null,
    rowVersion: file.piece.row_version,
    main: chosen?.route ?? null,
    own: chosen?.own ?? [],
    faces: file.faces.filter(f => f.scope === 'refinish').map(f => ({ id: f.id, part: f.part, name: f.name })),
    finishDefault: finishOfSchool(house),
  }
}

/** What a worker needs to plan this piece again and again: facts, rates, hours, prices and the shop's methods. */
export async function planningPage(id: number, at: Date) {
  const file = await readPiece(db(), id)
  return {
    facts: file.facts,
    rates: await readRates(),
    hours: await readHours(),
    house: await readHouse(),
    own: choiceOf(file)?.own ?? [],
    prices: await readPriceList(db()),
    now_ms: at.getTime(),
  }
}

/**
 * Works the plan out anew for a choice; only while nothing has been started. An open question to the client falls away
 * with the old plan.
 */
async function replan(tx: Db, file: PieceFile, choice: Choice): Promise<void> {
  const id = file.piece.id
  if (beganWork(await readPlan(tx, id)))
    throw fail(409, 'started', 'Work has started: change single steps under Plan, or judge the gate.')
  const plan = await inWorker('plan', { facts: file.facts, choice })
  await tx.run(
    `UPDATE approval
        SET state = 'superseded'
        WHERE piece_id = :id AND item_id IS NULL AND band_id IS NULL AND state = 'open'`,
    { id },
  )
  await tx.run('DELETE FROM plan_step WHERE piece_id = :id', { id })
  await tx.run('DELETE FROM plan_edit WHERE piece_id = :id', { id })
  await tx.run("DELETE FROM overrule WHERE piece_id = :id AND about = 'plan'", { id })
  for (const [i, step] of plan.steps.entries()) await insertStep(tx, id, step, (i + 1) * 100)
  await writeWaits(tx, id, plan.waits, [])
  await tx.run(
    'UPDATE piece SET accepted_worst_minor = NULL, agreed_minor = NULL, row_version = row_version + 1 WHERE id = :id',
    { id },
  )
}

const dropFaces = async (tx: Db, pieceId: number, faces: readonly number[]) => {
  for (const face of faces) await tx.run('DELETE FROM own_way_face WHERE face_id = :face', { face })
  await tx.run(
    `DELETE
        FROM own_way
        WHERE piece_id = :pieceId AND NOT EXISTS (SELECT 1 FROM own_way_face WHERE way_id = own_way.id)`,
    { pieceId },
  )
}

/** Takes a route for the piece, or for some of its faces, and works the plan out. */
export const choose = (id: number, input: z.infer<typeof s.choose>, person: Person, at: Date) =>
  onPiece(id, at, person, async (tx, file) => {
    const { piece, facts } = file
    if (piece.row_version !== input.rowVersion) throw stale()
    if (beganWork(await readPlan(tx, id)))
      throw fail(409, 'started', 'Work has started: change single steps under Plan, or judge the gate.')
    const { rowVersion: _seen, faces, house, ...picked } = input
    const chosen = choiceOf(file)
    const scope = file.faces.filter(f => f.scope === 'refinish').map(f => f.id)
    if (faces && !chosen)
      throw fail(409, 'no-route', 'Choose the route of the whole piece first; then some faces may go another way.')
    if (faces?.some(f => !scope.includes(f)))
      throw fail(422, 'invalid', 'A face is not in scope on this piece.', {
        faces: 'Choose faces that are to be refinished.',
      })
    if (faces && scope.every(f => faces.includes(f)))
      throw fail(422, 'invalid', 'These are all the faces: choose the route of the piece instead.', {
        faces: 'Some, not all.',
      })
    const methods = { ...(await readHouse(tx)), ...house }
    const way: Way = choiceFor(picked.route, picked)
    const judged = faces
      ? { facts: factsOfFaces(facts, f => faces.includes(f)), choice: { ...way, house: methods } }
      : { facts, choice: { ...way, house: methods, ...(chosen?.own ? { own: chosen.own } : {}) } }
    const verdict = await inWorker('judgeOne', { ...(await readAsking(at, tx)), ...judged })
    if (verdict.standing === 'ruled-out')
      throw fail(422, 'ruled-out', verdict.reasons.find(r => r.standing === 'ruled-out')!.says)
    if (faces) {
      await dropFaces(tx, id, faces)
      const own = await tx.run(
        `INSERT INTO own_way (piece_id, route, finish, colour, conditioner, fill, bleach, film_um)
            VALUES (:id, :route, :finish, :colour, :conditioner, :fill, :bleach, :film_um)`,
        { ...way, id },
      )
      for (const face of faces)
        await tx.run('INSERT INTO own_way_face (way_id, face_id) VALUES (:way, :face)', { way: own.id, face })
    } else
      await tx.run(
        `UPDATE piece
            SET route = :route, finish = :finish, colour = :colour, conditioner = :conditioner, fill = :fill,
              bleach = :bleach, film_um = :film_um, house = :overrides
            WHERE id = :id`,
        { ...way, overrides: JSON.stringify(house), id },
      )
    const now = await readPiece(tx, id)
    await replan(tx, now, choiceOf(now)!)
    const names = faces
      ? `${file.faces
          .filter(f => faces.includes(f.id))
          .map(f => `${f.part}, ${f.name}`)
          .join(' · ')}: `
      : ''
    return {
      kind: 'route',
      says:
        `Route: ${names}${way.route}, finish ${way.finish}, colour ${way.colour}. ` +
        `${verdict.reasons.map(r => r.says).join(' ')}`,
      result: { ok: true },
    }
  })

/** All faces go the piece's way again. */
export const dropWays = (id: number, rowVersion: number, person: Person, at: Date) =>
  onPiece(id, at, person, async (tx, file) => {
    if (file.piece.row_version !== rowVersion) throw stale()
    if (!choiceOf(file)?.own) throw fail(409, 'nothing', 'All faces go one way already.')
    await tx.run('DELETE FROM own_way WHERE piece_id = :id', { id })
    const { own: _own, ...main } = choiceOf(file)!
    await replan(tx, file, main)
    return { kind: 'route', says: `Route: all faces go one way, ${main.route}`, result: { ok: true } }
  })

/** Verdicts of a stored plan: the rules run on the steps that count. */
export function verdictsOf(facts: Facts, choice: Choice, plan: StoredPlan): Verdict[] {
  const steps = plan.steps.filter(st => st.state !== 'skipped')
  return judgePlan({ facts, choice, steps, waits: plan.waits })
}

/** The same, and what only a start is judged by. */
export function startVerdictsOf(facts: Facts, choice: Choice, plan: StoredPlan): Verdict[] {
  const steps = plan.steps.filter(st => st.state !== 'skipped')
  return [...verdictsOf(facts, choice, plan), ...judgePlan({ facts, choice, steps, waits: plan.waits, scope: 'start' })]
}

const layerStates = (plan: StoredPlan) => {
  const states = new Map(
    plan.steps.map((st): [string, LayerState] => [st.key, st.state === 'skipped' ? 'planned' : st.state]),
  )
  return (key: string): LayerState => states.get(key) ?? 'planned'
}
/** The section of a stored plan. */
export function sectionFor(facts: Facts, plan: StoredPlan, verdicts: readonly Verdict[]) {
  const failing = new Set(
    verdicts
      .filter(v => (v.severity === 'stop' || v.severity === 'forbidden') && !plan.overruled.has(`${v.rule}|${v.step}`))
      .map(v => v.step),
  )
  return sectionOf(
    facts,
    plan.steps.filter(st => st.state !== 'skipped'),
    layerStates(plan),
    failing,
  )
}

/** Likely and safe dates of what is left, from now. */
export function datesOf(plan: StoredPlan, hours: Hours, at: Date) {
  const steps = plan.steps.filter(st => st.state !== 'skipped')
  const done = new Map(
    steps
      .filter(st => st.started_ms !== null)
      .map(st => [st.key, { started_ms: st.started_ms!, finished_ms: st.finished_ms }]),
  )
  const run = (by: 'likely' | 'safe') => forecast({ steps, waits: plan.waits, hours, from_ms: at.getTime(), by, done })
  const end = (rows: { end_ms: number }[]) => (rows.length ? Math.max(...rows.map(r => r.end_ms)) : null)
  const likely = run('likely')
  const safe = run('safe')
  return { likely, safe, readyLikely_ms: end(likely), readySafe_ms: end(safe) }
}

interface Cost {
  soFar_minor: number
  planned_minor: number
}
async function costOf(id: number, plan: StoredPlan): Promise<Cost> {
  const rates = await readRates()
  const price = await readPrices()
  const used = await db().row<{ sum: number | null }>(
    `SELECT SUM(u.amount_ml / 1000 * u.price_minor) AS sum
        FROM lot_use u
        JOIN plan_step st ON st.id = u.step_id
        WHERE st.piece_id = :id`,
    { id },
  )
  const done = plan.steps.filter(st => st.state === 'done')
  const labour = estimate(
    done.map(st => ({ ...st, amount_ml: null, attended_min: Math.min(workedMin(st), 600) })),
    rates,
  )
  const materials = Math.round((used?.sum ?? 0) * (1 + rates.materialMarkup_bp / 10_000))
  const net = labour.net_minor + materials
  return {
    soFar_minor: net + Math.round((net * rates.tax_bp) / 10_000),
    planned_minor: estimate(
      plan.steps.filter(st => st.state !== 'skipped'),
      rates,
      price,
    ).total_minor,
  }
}
/** Minutes worked on a step: as timed, at least one. */
const workedMin = (st: PlannedStep) =>
  st.kind === 'approval' ? 0 : Math.max(1, Math.round(((st.finished_ms ?? 0) - (st.started_ms ?? 0)) / 60_000))

export async function planPage(id: number, person: Person, at: Date) {
  const file = await readPiece(db(), id)
  const choice = choiceOf(file)
  const plan = await readPlan(db(), id)
  if (!choice || plan.steps.length === 0) return { ready: false as const, rowVersion: file.piece.row_version }
  const strange = strangeInPlan(plan)
  if (strange) throw cannotRead(strange)
  const hours = await readHours()
  const { air } = await readAir(at)
  const verdicts = verdictsOf(file.facts, choice, plan)
  const bench = benchView({
    plan,
    verdicts: startVerdictsOf(file.facts, choice, plan),
    hours,
    at,
    air,
    wetCoat: await readWetCoat(db(), at, clockIn(hours.zone, at)),
  })
  const { budgets } = await inWorker('plan', { facts: file.facts, choice })
  const faceNames = new Map(file.faces.map(f => [f.id, `${f.part}, ${f.name}`]))
  const price = await readPrices()
  const cost = await costOf(id, plan)
  const dates = datesOf(plan, hours, at)
  return {
    ready: true as const,
    ...(await readEdits(id)),
    loops: loopsOf(
      plan.steps.filter(st => st.state !== 'skipped'),
      file.facts,
      choice,
    ),
    since: await sinceAgreed(id, plan, cost, dates, file.piece.agreed_minor, file.piece.accepted_worst_minor),
    rowVersion: file.piece.row_version,
    choice,
    now_ms: at.getTime(),
    acceptedWorst_minor: file.piece.accepted_worst_minor,
    agreed_minor: file.piece.agreed_minor,
    steps: plan.steps.map(st => ({
      ...st,
      faceNames: st.faces.map(f => faceNames.get(f) ?? ''),
      cautionTexts: st.cautions.map(cautionText),
      keeps: TAKES_MARKS.includes(st.kind) ? file.facts.marks : [],
      notes: notesOf(st, file.facts),
      start: bench.get(st.key)!,
      cost_minor: materialCost_minor(st, price),
    })),
    waits: plan.waits,
    ahead: await readAirAhead(at, hours),
    airNow: air,
    verdicts: verdicts.map(v => ({
      ...v,
      overruled: plan.overruled.get(`${v.rule}|${v.step}`) ?? null,
      mayOverrule: mayOverrule(v.severity, person.role),
      oneTouch: mendOf(v),
    })),
    section: sectionFor(file.facts, plan, verdicts),
    budgets: budgets.map(b => ({ species: b.group.species, ...b.budget })),
    dates,
    cost,
    left_min: sumOf(
      plan.steps.filter(st => st.state === 'planned'),
      st => st.attended_min,
    ),
    film_um: sumOf(sectionFor(file.facts, plan, verdicts)?.planned ?? [], l => l.um),
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
  const row = await db().row<{ content: string }>(
    `SELECT sn.content
        FROM approval a
        JOIN plan_snapshot sn ON sn.id = a.snapshot_id
        WHERE a.piece_id = :id AND a.item_id IS NULL AND a.band_id IS NULL AND a.state = 'yes'
        ORDER BY a.id DESC
        LIMIT 1`,
    { id },
  )
  if (!row || agreed_minor === null) return null
  const agreed = JSON.parse(row.content) as {
    steps: Pick<Step, 'key' | 'title' | 'attended_min'>[]
    shown: { readyLikely: string; readySafe: string }
  }
  const dayOf = (ms: number | null) => (ms === null ? 0 : Math.floor(ms / DAY_MS))
  const difference = planDifference(
    agreed.steps as Step[],
    plan.steps.filter(st => st.state !== 'skipped'),
  )
  const dearer = worst_minor !== null && cost.planned_minor > worst_minor
  const later = dayOf(dates.readyLikely_ms) > dayOf(Date.parse(agreed.shown.readySafe)) ? ('date' as const) : null
  return {
    ...difference,
    price_minor: cost.planned_minor - agreed_minor,
    days: dayOf(dates.readyLikely_ms) - dayOf(Date.parse(agreed.shown.readyLikely)),
    needsAnswer: dearer ? ('price' as const) : later,
  }
}

/** Overrules a verdict with a word why. Nobody lifts what is forbidden. */
export const overrule = (id: number, input: z.infer<typeof s.overrule>, person: Person, at: Date) =>
  onPiece(id, at, person, async tx => {
    const rule = RULES.find(r => r.slug === input.rule)
    const plan = await readPlan(tx, id)
    if (!rule || !plan.steps.some(st => st.key === input.stepKey)) throw notFound('verdict')
    if (!mayOverrule(rule.severity, person.role))
      throw fail(
        403,
        'forbidden',
        rule.severity === 'forbidden'
          ? `This is forbidden until evidence lifts it. ${rule.mend}`
          : 'Only the owner may overrule a stop.',
      )
    await tx.run(
      `INSERT INTO overrule (piece_id, rule, step_key, word, person_id, at)
          VALUES (:id, :rule, :stepKey, :word, :personId, :at)`,
      { ...input, id, personId: person.id, at },
    )
    return {
      kind: 'overruled',
      says: `Overruled ${input.rule} at "${plan.steps.find(st => st.key === input.stepKey)!.title}": ${input.word}`,
      result: { ok: true },
    }
  })

import type { z } from 'zod'
import { estimate, materialCost_minor, type Rates } from '#core/estimate'
import { applyMend, judgePlan, mendOf, RULES, type Verdict } from '#core/layers'
import { completePlan, planDifference, TAKES_MARKS, workOutPlan, type Choice, type Facts, type Step } from '#core/plan'
import { choiceFor, judgeRoutes, lessInvasive, type RouteVerdict } from '#core/route'
import { cautionText, mayOverrule } from '#core/safety'
import { sectionOf, type LayerState } from '#core/section'
import { forecast, type Hours } from '#core/timetable'
import { sumOf } from '#core/units'
import type * as s from '#shared/schemas'
import { db, type Db } from '../database/db'
import { benchView } from './benchView'
import type { Person } from './people'
import { readHouse } from './house'
import { onPiece, readPiece, type PieceFile } from './pieces'
import { choiceOf, insertStep, readPlan, writeWaits, type PlannedStep, type StoredPlan } from './planRows'
import { readAir, readHours, readShop } from './shop'

export async function readRates(on: Db = db()): Promise<Rates> {
  const shop = await readShop(on)
  return { hour_minor: shop.hour_minor, materialMarkup_bp: shop.material_markup_bp, tax_bp: shop.tax_bp }
}

/** Price per litre by class: the dearest product of that class on the shelf, else the class's default. */
export async function readPrices(on: Db = db()): Promise<(slug: string) => number | undefined> {
  const rows = await on.rows<{ class: string, price: number }>('SELECT class, MAX(price_minor) AS price FROM product GROUP BY class')
  const prices = new Map(rows.map(r => [r.class, r.price]))
  return slug => prices.get(slug)
}

const withoutPlan = ({ plan, ...verdict }: RouteVerdict) => ({ ...verdict, steps: plan.steps.length })

/** All routes judged on this piece, the advised one, and the milder one beside the chosen. */
export async function routesPage(id: number, query: z.infer<typeof s.routeQuery>, at: Date) {
  const { facts, piece } = await readPiece(db(), id)
  const chosen = choiceOf(piece)
  const choice: Choice = { route: 'strip-chemical', ...query, house: { ...await readHouse(), ...query.house } }
  const advice = judgeRoutes({ facts, choice, rates: await readRates(), hours: await readHours(), now_ms: at.getTime(), price: await readPrices() })
  const beside = chosen ? lessInvasive(advice.verdicts, chosen.route) : null
  const started = (await readPlan(db(), id)).steps.some(st => st.kind !== 'approval' && st.state !== 'planned')
  return { started, choice, advised: advice.advised, verdicts: advice.verdicts.map(withoutPlan), chosen: chosen?.route ?? null, beside: beside?.route ?? null, rowVersion: piece.row_version }
}

/** What a worker needs to plan this piece again and again: facts, rates, hours, prices and the shop's methods. */
export async function planningPage(id: number, at: Date) {
  const { facts } = await readPiece(db(), id)
  const prices = await db().rows<{ class: string, price: number }>('SELECT class, MAX(price_minor) AS price FROM product GROUP BY class')
  return { facts, rates: await readRates(), hours: await readHours(), house: await readHouse(), prices: Object.fromEntries(prices.map(p => [p.class, p.price])), now_ms: at.getTime() }
}

/** Takes a route and works the plan out; only while nothing has been started. */
export const choose = (id: number, input: z.infer<typeof s.choose>, person: Person, at: Date) => onPiece(id, at, person, async (tx, { piece, facts }) => {
  if (piece.row_version !== input.rowVersion) throw stale()
  const old = await readPlan(tx, id)
  if (old.steps.some(st => st.kind !== 'approval' && st.state !== 'planned')) throw fail(409, 'started', 'Work has started: change single steps under Plan, or judge the gate.')
  const { rowVersion: _seen, ...picked } = input
  const choice = choiceFor(picked.route, { ...picked, house: { ...await readHouse(tx), ...picked.house } })
  const verdict = judgeRoutes({ facts, choice, rates: await readRates(tx), hours: await readHours(tx), now_ms: at.getTime(), price: await readPrices(tx) }).verdicts.find(v => v.route === choice.route)!
  if (verdict.standing === 'ruled-out') throw fail(422, 'ruled-out', verdict.reasons.find(r => r.standing === 'ruled-out')!.says)
  await tx.run('UPDATE approval SET state = \'superseded\' WHERE piece_id = :id AND item_id IS NULL AND state = \'open\'', { id })
  await tx.run('DELETE FROM plan_step WHERE piece_id = :id', { id })
  await tx.run('DELETE FROM overrule WHERE piece_id = :id AND about = \'plan\'', { id })
  for (const [i, step] of verdict.plan.steps.entries()) await insertStep(tx, id, step, (i + 1) * 100)
  await writeWaits(tx, id, verdict.plan.waits, [])
  await tx.run('UPDATE piece SET route = :route, finish = :finish, colour = :colour, conditioner = :conditioner, fill = :fill, bleach = :bleach, house = :overrides, accepted_worst_minor = NULL, agreed_minor = NULL, row_version = row_version + 1 WHERE id = :id', { ...choice, house: undefined, overrides: JSON.stringify(picked.house), id })
  return { kind: 'route', says: `Route: ${choice.route}, finish ${choice.finish}, colour ${choice.colour}. ${verdict.reasons.map(r => r.says).join(' ')}`, result: { ok: true } }
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
  const states = new Map(plan.steps.map((st): [string, LayerState] => [st.key, st.state === 'done' ? 'done' : st.state === 'running' ? 'running' : 'planned']))
  return (key: string): LayerState => states.get(key) ?? 'planned'
}
/** The section of a stored plan. */
export function sectionFor(facts: Facts, plan: StoredPlan, verdicts: readonly Verdict[]) {
  const failing = new Set(verdicts.filter(v => (v.severity === 'stop' || v.severity === 'forbidden') && !plan.overruled.has(`${v.rule}|${v.step}`)).map(v => v.step))
  return sectionOf(facts, plan.steps.filter(st => st.state !== 'skipped'), layerStates(plan), failing)
}

/** Likely and safe dates of what is left, from now. */
export function datesOf(plan: StoredPlan, hours: Hours, at: Date) {
  const steps = plan.steps.filter(st => st.state !== 'skipped')
  const done = new Map(steps.filter(st => st.started_ms !== null).map(st => [st.key, { started_ms: st.started_ms!, finished_ms: st.finished_ms }]))
  const run = (by: 'likely' | 'safe') => forecast({ steps, waits: plan.waits, hours, from_ms: at.getTime(), by, done })
  const end = (rows: { end_ms: number }[]) => rows.length ? Math.max(...rows.map(r => r.end_ms)) : null
  const likely = run('likely')
  const safe = run('safe')
  return { likely, safe, readyLikely_ms: end(likely), readySafe_ms: end(safe) }
}

interface Cost { soFar_minor: number, planned_minor: number }
async function costOf(id: number, plan: StoredPlan): Promise<Cost> {
  const rates = await readRates()
  const price = await readPrices()
  const used = await db().row<{ sum: number | null }>('SELECT SUM(u.amount_ml / 1000 * u.price_minor) AS sum FROM lot_use u JOIN plan_step st ON st.id = u.step_id WHERE st.piece_id = :id', { id })
  const done = plan.steps.filter(st => st.state === 'done')
  const labour = estimate(done.map(st => ({ ...st, amount_ml: null, attended_min: Math.min(workedMin(st), 600) })), rates)
  const materials = Math.round((used?.sum ?? 0) * (1 + rates.materialMarkup_bp / 10_000))
  const net = labour.net_minor + materials
  return { soFar_minor: net + Math.round((net * rates.tax_bp) / 10_000), planned_minor: estimate(plan.steps.filter(st => st.state !== 'skipped'), rates, price).total_minor }
}
/** Minutes worked on a step: as timed, at least one. */
const workedMin = (st: PlannedStep) => st.kind === 'approval' ? 0 : Math.max(1, Math.round(((st.finished_ms ?? 0) - (st.started_ms ?? 0)) / 60_000))

export async function planPage(id: number, person: Person, at: Date) {
  const file = await readPiece(db(), id)
  const choice = choiceOf(file.piece)
  const plan = await readPlan(db(), id)
  if (!choice || plan.steps.length === 0) return { ready: false as const, rowVersion: file.piece.row_version }
  const hours = await readHours()
  const { air } = await readAir(at)
  const verdicts = verdictsOf(file.facts, choice, plan)
  const bench = benchView({ plan, verdicts: startVerdictsOf(file.facts, choice, plan), hours, at, air })
  const { budgets } = workOutPlan(file.facts, choice)
  const faceNames = new Map(file.faces.map(f => [f.id, `${f.part}, ${f.name}`]))
  const price = await readPrices()
  const cost = await costOf(id, plan)
  return {
    ready: true as const, since: await sinceAgreed(id, plan, cost, file.piece.agreed_minor, file.piece.accepted_worst_minor), rowVersion: file.piece.row_version, choice, now_ms: at.getTime(), acceptedWorst_minor: file.piece.accepted_worst_minor, agreed_minor: file.piece.agreed_minor,
    steps: plan.steps.map(st => ({ ...st, faceNames: st.faces.map(f => faceNames.get(f) ?? ''), cautionTexts: st.cautions.map(cautionText), keeps: TAKES_MARKS.includes(st.kind) ? file.facts.marks : [], start: bench.get(st.key)!, cost_minor: materialCost_minor(st, price) })),
    waits: plan.waits,
    verdicts: verdicts.map(v => ({ ...v, overruled: plan.overruled.get(`${v.rule}|${v.step}`) ?? null, mayOverrule: mayOverrule(v.severity, person.role), oneTouch: mendOf(v.rule) })),
    section: sectionFor(file.facts, plan, verdicts),
    budgets: budgets.map(b => ({ species: b.group.species, ...b.budget })),
    dates: datesOf(plan, hours, at), cost,
    left_min: sumOf(plan.steps.filter(st => st.state === 'planned'), st => st.attended_min),
    film_um: sumOf(sectionFor(file.facts, plan, verdicts)?.planned ?? [], l => l.um),
  }
}

/** Works waits, minutes and amounts out again after a change made by hand. Started steps stay as they are. */
async function rework(tx: Db, file: PieceFile, changed: Step[], old: StoredPlan): Promise<void> {
  const choice = choiceOf(file.piece)!
  const live = new Set(old.steps.filter(st => st.state === 'skipped').map(st => st.key))
  const again = completePlan(changed.filter(st => !live.has(st.key)), file.facts, choice)
  const frozen = new Set(old.steps.filter(st => st.state !== 'planned').map(st => st.key))
  for (const step of again.steps) {
    if (frozen.has(step.key)) continue
    await tx.run('UPDATE plan_step SET attended_min = :attended_min, amount_ml = :amount_ml WHERE piece_id = :pieceId AND step_key = :key', { pieceId: file.piece.id, key: step.key, attended_min: step.attended_min, amount_ml: step.amount_ml === null ? null : Math.round(step.amount_ml * 100) / 100 })
  }
  await writeWaits(tx, file.piece.id, again.waits, old.waits)
}

const needPlan = (plan: StoredPlan, file: PieceFile) => {
  if (!choiceOf(file.piece) || plan.steps.length === 0) throw fail(409, 'no-plan', 'There is no plan yet. Choose a route first.')
}

export const addStep = (id: number, input: z.infer<typeof s.addStep>, person: Person, at: Date) => onPiece(id, at, person, async (tx, file) => {
  const plan = await readPlan(tx, id)
  needPlan(plan, file)
  const faces = new Set(file.faces.map(f => f.id))
  if (input.faces.some(f => !faces.has(f))) throw fail(422, 'invalid', 'A face is not on this piece.', { faces: 'Choose faces of this piece.' })
  if (['coat', 'stain', 'gel', 'conditioner', 'oil-on', 'strip'].includes(input.kind) && !input.product) throw fail(422, 'invalid', 'This step needs a product.', { product: 'Choose a product class.' })
  const place = input.after === null ? -1 : plan.steps.findIndex(st => st.id === input.after)
  if (input.after !== null && place < 0) throw notFound('step')
  const next = plan.steps[place + 1]
  if (next && next.state !== 'planned' && next.state !== 'skipped') throw fail(409, 'started', 'What comes next has started; add it further down.')
  const stem = `hand-${input.kind}`
  const key = `${stem}.${plan.steps.filter(st => st.key.startsWith(stem)).length + 1}.${Math.floor(at.getTime() / 1000) % 100000}`
  const step: Step = { key, kind: input.kind, title: input.title, faces: input.faces, product: input.product, grits: input.grits, method: input.method, coat: input.coat, passes: 1, attended_min: input.attendedMin, amount_ml: input.amountMl, cautions: [], why: `added by ${person.name}`, gate: null, byHand: true }
  const order: Step[] = [...plan.steps.slice(0, place + 1), step, ...plan.steps.slice(place + 1)]
  await insertStep(tx, id, step, 0)
  await renumber(tx, id, order)
  await rework(tx, file, order, plan)
  return { kind: 'plan', says: `Step added: ${input.title}`, result: { ok: true } }
})

async function renumber(tx: Db, id: number, order: readonly Step[]) {
  for (const [i, step] of order.entries()) await tx.run('UPDATE plan_step SET position = :position WHERE piece_id = :id AND step_key = :key', { id, key: step.key, position: (i + 1) * 100 })
}

async function stepPiece(stepId: number): Promise<number> {
  const row = await db().row<{ piece_id: number }>('SELECT piece_id FROM plan_step WHERE id = :stepId', { stepId })
  if (!row) throw notFound('step')
  return row.piece_id
}
function openStep(plan: StoredPlan, stepId: number, rowVersion: number): PlannedStep {
  const step = plan.steps.find(st => st.id === stepId)
  if (!step) throw notFound('step')
  if (step.rowVersion !== rowVersion) throw stale()
  if (step.state !== 'planned') throw fail(409, 'started', 'A step that was started is frozen; undo it first.')
  if (step.kind === 'approval') throw fail(422, 'client', 'The client\'s word cannot be moved or removed.')
  return step
}

export async function changeStep(stepId: number, input: z.infer<typeof s.changeStep>, person: Person, at: Date) {
  const id = await stepPiece(stepId)
  return onPiece(id, at, person, async (tx, file) => {
    const plan = await readPlan(tx, id)
    const step = openStep(plan, stepId, input.rowVersion)
    const { moveBy = 0 } = input
    const edited = input.title !== undefined || input.attendedMin !== undefined || input.product !== undefined || input.amountMl !== undefined || input.grits !== undefined || input.method !== undefined
    const next: PlannedStep = { ...step, title: input.title ?? step.title, attended_min: input.attendedMin ?? step.attended_min, product: input.product === undefined ? step.product : input.product, amount_ml: input.amountMl === undefined ? step.amount_ml : input.amountMl, grits: input.grits ?? step.grits, method: input.method ?? step.method, byHand: step.byHand || edited }
    await tx.run(
      `UPDATE plan_step SET title = :title, attended_min = :attended_min, product = :product, amount_ml = :amount_ml, grits = :grits, method = :method, by_hand = :byHand, row_version = row_version + 1 WHERE id = :id`,
      { title: next.title, attended_min: next.attended_min, product: next.product, amount_ml: next.amount_ml, method: next.method, byHand: next.byHand, id: stepId, grits: next.grits.join(',') })
    const rest = plan.steps.filter(st => st.id !== stepId)
    const first = rest.findLastIndex(st => st.state !== 'planned') + 1
    const to = Math.max(first, Math.min(rest.length, plan.steps.indexOf(step) + moveBy))
    const order: Step[] = [...rest.slice(0, to), next, ...rest.slice(to)]
    await renumber(tx, id, order)
    await rework(tx, file, order, plan)
    return { kind: 'plan', says: moveBy ? `Step moved: ${next.title}` : `Step changed: ${next.title}, ${next.attended_min} min`, result: { ok: true } }
  })
}

export async function removeStep(stepId: number, rowVersion: number, person: Person, at: Date) {
  const id = await stepPiece(stepId)
  return onPiece(id, at, person, async (tx, file) => {
    const plan = await readPlan(tx, id)
    const step = openStep(plan, stepId, rowVersion)
    await tx.run('DELETE FROM plan_step WHERE id = :stepId', { stepId })
    await rework(tx, file, plan.steps.filter(st => st.id !== stepId), plan)
    return { kind: 'plan', says: `Step removed: ${step.title}`, result: { ok: true } }
  })
}

/** What changed since the client said yes: steps, minutes, price; null while nothing was agreed. */
async function sinceAgreed(id: number, plan: StoredPlan, cost: Cost, agreed_minor: number | null, worst_minor: number | null) {
  const row = await db().row<{ content: string }>(
    'SELECT sn.content FROM approval a JOIN plan_snapshot sn ON sn.id = a.snapshot_id WHERE a.piece_id = :id AND a.item_id IS NULL AND a.state = \'yes\' ORDER BY a.id DESC LIMIT 1', { id })
  if (!row || agreed_minor === null) return null
  const agreed = (JSON.parse(row.content) as { steps: Pick<Step, 'key' | 'title' | 'attended_min'>[] }).steps
  const difference = planDifference(agreed as Step[], plan.steps.filter(st => st.state !== 'skipped'))
  return { ...difference, price_minor: cost.planned_minor - agreed_minor, needsAnswer: worst_minor !== null && cost.planned_minor > worst_minor }
}

/** Mends a verdict by its mechanical mend: a step put in, or one changed. Started steps are never touched. */
export const mendPlan = (id: number, input: z.infer<typeof s.mendVerdict>, person: Person, at: Date) => onPiece(id, at, person, async (tx, file) => {
  const plan = await readPlan(tx, id)
  needPlan(plan, file)
  const verdict = verdictsOf(file.facts, choiceOf(file.piece)!, plan).find(v => v.rule === input.rule && v.step === input.stepKey)
  if (!verdict) throw notFound('verdict')
  const key = `mend-${plan.steps.length}.${Math.floor(at.getTime() / 1000) % 100000}`
  const mended = applyMend(plan.steps, verdict, key)
  if (!mended) throw fail(409, 'by-hand', `This is mended by hand. ${verdict.mend}`)
  const changed = mended.find(st => !plan.steps.some(old => JSON.stringify(old) === JSON.stringify(st)))!
  const stored = plan.steps.find(st => st.key === changed.key)
  if (stored && stored.state !== 'planned') throw fail(409, 'started', `"${stored.title}" has started; a started step is frozen.`)
  if (!stored) await insertStep(tx, id, changed, 0)
  else await tx.run('UPDATE plan_step SET title = :title, product = :product, method = :method, grits = :grits, row_version = row_version + 1 WHERE piece_id = :id AND step_key = :key', { title: changed.title, product: changed.product, method: changed.method, grits: changed.grits.join(','), id, key: changed.key })
  await renumber(tx, id, mended)
  await rework(tx, file, mended, plan)
  return { kind: 'plan', says: `Mended ${input.rule}: ${mendOf(input.rule)}`, result: { ok: true } }
})

/** Overrules a verdict with a word why. Nobody lifts what is forbidden. */
export const overrule = (id: number, input: z.infer<typeof s.overrule>, person: Person, at: Date) => onPiece(id, at, person, async (tx) => {
  const rule = RULES.find(r => r.slug === input.rule)
  const plan = await readPlan(tx, id)
  if (!rule || !plan.steps.some(st => st.key === input.stepKey)) throw notFound('verdict')
  if (!mayOverrule(rule.severity, person.role)) throw fail(403, 'forbidden', rule.severity === 'forbidden' ? `This is forbidden until evidence lifts it. ${rule.mend}` : 'Only the owner may overrule a stop.')
  await tx.run('INSERT INTO overrule (piece_id, rule, step_key, word, person_id, at) VALUES (:id, :rule, :stepKey, :word, :personId, :at)', { ...input, id, personId: person.id, at })
  return { kind: 'overruled', says: `Overruled ${input.rule} at "${plan.steps.find(st => st.key === input.stepKey)!.title}": ${input.word}`, result: { ok: true } }
})

import type { z } from 'zod'
import {
  type BuildUp,
  type Choice,
  choiceOfPicks,
  everyday,
  type Layer,
  onGround,
  type Picks,
  picksOf,
} from '#core/build'
import type { Step } from '#core/acts'
import { isAgreed, withAgreed } from '#core/plan'
import type { Context } from '#core/context'
import { lessInvasive } from '#core/ground'
import { finishOfSchool } from '#core/house'
import { factsOfFaces, isRoute, ROUTE_NAMES, type RouteSlug } from '#core/piece'
import type { Finish } from '#core/materials'
import type * as s from '#shared/schemas'
import { db, type Db } from '../../database/db'
import { overtakePlan } from '../client/overtake'
import { onPiece } from '../piece/pieces'
import { readPiece } from '../piece/read'
import type { PieceFile } from '../piece/rows'
import type { Person } from '../shop/person'
import { readHours } from '../shop/rows'
import { readAsking, readPriceList, readRates } from './asking'
import { freeFaces, insertBuildUp, type LayerDraft, setGround, writeLayers } from './buildUps'
import { keepKnown } from './findings'
import { readHouse } from './house'
import { insertStep, readPlan, type StoredPlan, writeSaid } from './rows'

export const beganWork = (plan: StoredPlan) => plan.steps.some(st => st.kind !== 'approval' && st.state !== 'planned')

const USUAL: Picks = {
  finish: 'waterborne-polyurethane',
  colour: 'none',
  conditioner: 'auto',
  fill: 'none',
  bleach: 'none',
  film_um: null,
}
/** What was picked, the usual for the rest; null: nothing was, so that the layers stay as they are. */
function pickedIn(given: Partial<Picks>): Picks | null {
  const picked = Object.entries(given).filter(([what, value]) => what in USUAL && value !== undefined)
  return picked.length ? { ...USUAL, ...Object.fromEntries(picked) } : null
}

/** The build-up that these faces have of their own. */
const ownOf = (choice: Choice | null, faces: readonly number[]): BuildUp | undefined =>
  choice?.buildUps.slice(1).find(b => b.faces?.some(f => faces.includes(f)))

/** A build-up on this ground: proposed from picks, else with the layers that it has. */
function buildUpFor(context: Context, ground: RouteSlug, picks: Picks | null, base: BuildUp | undefined): BuildUp {
  if (base && !picks) return onGround(base, ground)
  const [proposed] = choiceOfPicks(context, { ...(picks ?? USUAL), route: ground }).buildUps
  return onGround({ ...proposed, id: base?.id ?? 0, faces: base?.faces ?? null }, ground)
}
const alone = (buildUp: BuildUp): Choice => ({ buildUps: [{ ...buildUp, faces: null }] })

/**
 * All routes judged on this piece, or on some of its faces alone, with what was picked, else with the layers that it
 * has; the advised one, and the milder one beside the chosen.
 */
export async function routesPage(id: number, query: z.infer<typeof s.routeQuery>, at: Date, signal: AbortSignal) {
  const file = await readPiece(db(), id)
  const { faces, house: methods, ...given } = query
  const house = await readHouse()
  const facts = faces ? factsOfFaces(file.facts, f => faces.includes(f)) : file.facts
  const context = { ...file.context, facts, house: { ...house, ...methods } }
  const [main, ...own] = file.choice?.buildUps ?? []
  const base = faces ? ownOf(file.choice, faces) : main
  const judged = buildUpFor(context, base?.ground ?? 'strip-chemical', pickedIn(given), base)
  const choice: Choice = faces ? alone(judged) : { buildUps: [judged, ...own] }
  const advice = await inWorker('judgeAll', { ...(await readAsking(at)), context, choice }, { signal })
  const taken = base?.ground ?? null
  const beside = taken ? lessInvasive(advice.verdicts, taken) : null
  return {
    started: beganWork(await readPlan(db(), file)),
    picks: picksOf(judged),
    advised: advice.advised,
    verdicts: advice.verdicts,
    chosen: taken,
    beside: beside?.route ?? null,
    rowVersion: file.piece.row_version,
    main: main?.ground ?? null,
    own: own.map(b => ({ faces: b.faces ?? [], route: b.ground, ...picksOf(b) })),
    faces: file.faces.filter(f => f.scope === 'refinish').map(f => ({ id: f.id, part: f.part, name: f.name })),
    finishDefault: finishOfSchool(house, facts.use),
  }
}

/** What a worker needs to plan this piece again and again: what is known, rates, hours, prices, other build-ups. */
export async function planningPage(id: number, person: Person, at: Date) {
  const file = await readPiece(db(), id)
  return {
    context: file.context,
    rates: await readRates(),
    hours: await readHours(),
    house: await readHouse(),
    own: file.choice?.buildUps.slice(1) ?? [],
    prices: person.rights.has('see-prices') ? await readPriceList(db()) : {},
    now_ms: at.getTime(),
  }
}

/**
 * Works the plan out anew for a choice; only while nothing has been started. An open question to the client falls away
 * with the old plan.
 */
async function replan(tx: Db, file: PieceFile, choice: Choice): Promise<void> {
  await writeAnew(tx, file, (await inWorker('plan', { context: file.context, choice })).steps)
  await askAnew(tx, file.piece.id)
}

/** These steps instead of those that there were, with what a client agreed to; only while nothing has been started. */
async function writeAnew(tx: Db, file: PieceFile, steps: readonly Step[]): Promise<void> {
  const { id } = file.piece
  const agreed = (await readPlan(tx, file)).steps.filter(isAgreed)
  await tx.run('DELETE FROM plan_step WHERE piece_id = :id', { id })
  await tx.run('DELETE FROM plan_edit WHERE piece_id = :id', { id })
  await tx.run("DELETE FROM overrule WHERE piece_id = :id AND about = 'plan'", { id })
  for (const [i, step] of withAgreed<Step>(steps, agreed).entries()) await insertStep(tx, id, step, (i + 1) * 100)
  await writeSaid(tx, id, [])
  await keepKnown(tx, file)
}

/** Another surface for the main build-up: its ground, its layers with the numbers that they have, and the steps. */
export interface Surface {
  ground: RouteSlug
  ending: BuildUp['ending']
  layers: readonly LayerDraft[]
  steps: readonly Step[]
}
/** The piece as it would be with another finish, or by another way, written down. Only while nothing was started. */
export async function writeBeside(tx: Db, file: PieceFile, other: Finish | RouteSlug): Promise<Surface> {
  const main = file.choice!.buildUps[0]
  const picks = picksOf(main)
  const next = isRoute(other)
    ? buildUpFor(file.context, other, picks, main)
    : buildUpFor(file.context, main.ground, { ...picks, finish: other }, main)
  await setGround(tx, main.id, next)
  await writeLayers(tx, main.id, draftsOf(file, next.layers))
  const now = await readPiece(tx, file.piece.id)
  const { steps } = await inWorker('plan', { context: file.context, choice: now.choice! })
  await writeAnew(tx, file, steps)
  return { ground: next.ground, ending: next.ending, layers: draftsOf(now, now.choice!.buildUps[0].layers), steps }
}
/** Takes a surface as it was worked out before. */
export async function writeSurface(tx: Db, file: PieceFile, { layers, steps, ...its }: Surface): Promise<void> {
  const main = file.choice!.buildUps[0]
  await setGround(tx, main.id, its)
  await writeLayers(tx, main.id, layers, { keepNumbers: true })
  await writeAnew(tx, await readPiece(tx, file.piece.id), steps)
}

/** What was asked of the client falls away, and so does what was accepted: the plan is another. */
export async function askAnew(tx: Db, id: number): Promise<void> {
  await overtakePlan(tx, id)
  await tx.run(
    'UPDATE piece SET accepted_worst_minor = NULL, agreed_minor = NULL, row_version = row_version + 1 WHERE id = :id',
    { id },
  )
}

/** Layers as they are stored; the shop's own products stay with the layers that have them. */
export const draftsOf = (file: PieceFile, layers: readonly Layer[]): LayerDraft[] =>
  layers.map(l => ({ ...l, productId: file.layers.find(r => r.id === l.id)?.product_id ?? null }))

/** Layers as they lie on these faces alone: those of other faces stay behind, a layer on all of them is on all. */
function layersFor(layers: readonly Layer[], faces: readonly number[]): Layer[] {
  return layers.flatMap(l => {
    const on = l.faces?.filter(f => faces.includes(f)) ?? faces
    if (on.length === 0) return []
    return [{ ...l, faces: on.length === faces.length ? null : on }]
  })
}

/** Takes a route for the piece, or for some of its faces, and works the plan out. */
export const choose = (id: number, input: z.infer<typeof s.choose>, person: Person, at: Date) =>
  onPiece(id, at, person, async (tx, file) => {
    const { piece, facts } = file
    if (piece.row_version !== input.rowVersion) throw stale()
    if (beganWork(await readPlan(tx, file)))
      throw fail(409, 'started', 'Work has started: change single steps under Plan, or judge the gate.')
    const { rowVersion: _seen, faces, house, route, ...given } = input
    const scope = file.faces.filter(f => f.scope === 'refinish').map(f => f.id)
    if (faces && !file.choice)
      throw fail(409, 'no-route', 'Choose the route of the whole piece first; then some faces may go another way.')
    if (faces?.some(f => !scope.includes(f)))
      throw fail(422, 'invalid', 'A face is not in scope on this piece.', {
        faces: 'Choose faces that are to be refinished.',
      })
    if (faces && scope.every(f => faces.includes(f)))
      throw fail(422, 'invalid', 'These are all the faces: choose the route of the piece instead.', {
        faces: 'Some, not all.',
      })
    const [main, ...own] = file.choice?.buildUps ?? []
    const context: Context = {
      ...file.context,
      facts: faces ? factsOfFaces(facts, f => faces.includes(f)) : facts,
      house: { ...(await readHouse(tx)), ...house },
    }
    const base = faces ? (ownOf(file.choice, faces) ?? main) : main
    const next = buildUpFor(context, route, pickedIn(given), base)
    const verdict = await inWorker('judgeOne', {
      ...(await readAsking(at, tx)),
      context,
      choice: faces ? alone(next) : { buildUps: [next, ...own] },
    })
    if (verdict.standing === 'ruled-out')
      throw fail(422, 'ruled-out', verdict.reasons.find(r => r.standing === 'ruled-out')!.says)
    if (faces) {
      await freeFaces(tx, id, faces)
      const made = await insertBuildUp(tx, id, { ...next, faces })
      await writeLayers(tx, made, draftsOf(file, layersFor(next.layers, faces)))
    } else {
      await tx.run('UPDATE piece SET house = :overrides WHERE id = :id', { overrides: JSON.stringify(house), id })
      if (main) await setGround(tx, main.id, next)
      const made = main?.id ?? (await insertBuildUp(tx, id, next))
      await writeLayers(tx, made, draftsOf(file, next.layers))
    }
    const now = await readPiece(tx, id)
    await replan(tx, now, now.choice!)
    const names = faces
      ? `${file.faces
          .filter(f => faces.includes(f.id))
          .map(f => `${f.part}, ${f.name}`)
          .join(' · ')}: `
      : ''
    const laid = next.layers.flatMap(l => everyday(l, context) ?? []).join(', ')
    return {
      kind: 'route',
      says:
        `Route: ${names}${ROUTE_NAMES[route]}${laid ? `, ${laid}` : ''}. ` +
        `${verdict.reasons.map(r => r.says).join(' ')}`,
      result: { ok: true },
    }
  })

/** The way that is advised for a piece without one, with this finish or the house's; its plan is worked out. */
export async function takeAdvised(tx: Db, id: number, finish: Finish | null, at: Date): Promise<void> {
  const file = await readPiece(tx, id)
  const house = await readHouse(tx)
  const picks = { ...USUAL, finish: finish ?? (finishOfSchool(house, file.facts.use) as Finish | null) ?? USUAL.finish }
  const context: Context = { ...file.context, house }
  const judged = buildUpFor(context, 'strip-chemical', picks, undefined)
  const asked = { ...(await readAsking(at, tx)), context, choice: { buildUps: [judged] } as Choice }
  const { advised } = await inWorker('judgeAll', asked)
  const next = buildUpFor(context, advised ?? 'strip-chemical', picks, undefined)
  await writeLayers(tx, await insertBuildUp(tx, id, next), draftsOf(file, next.layers))
  const now = await readPiece(tx, id)
  await replan(tx, now, now.choice!)
}

/** All faces go the piece's way again. */
export const dropWays = (id: number, rowVersion: number, person: Person, at: Date) =>
  onPiece(id, at, person, async (tx, file) => {
    if (file.piece.row_version !== rowVersion) throw stale()
    if (beganWork(await readPlan(tx, file)))
      throw fail(409, 'started', 'Work has started: change single steps under Plan, or judge the gate.')
    const [main, ...own] = file.choice?.buildUps ?? []
    if (!main || own.length === 0) throw fail(409, 'nothing', 'All faces go one way already.')
    for (const b of own) await tx.run('DELETE FROM build_up WHERE id = :id', { id: b.id })
    await replan(tx, file, { buildUps: [main] })
    return { kind: 'route', says: `Route: all faces go one way. ${ROUTE_NAMES[main.ground]}`, result: { ok: true } }
  })

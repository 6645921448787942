import type { z } from 'zod'
import { type Choice, ROUTE_NAMES, type Way } from '#core/build'
import { choiceFor, lessInvasive } from '#core/ground'
import { finishOfSchool } from '#core/house'
import { materialOf } from '#core/materials'
import { factsOfFaces } from '#core/piece'
import type * as s from '#shared/schemas'
import { db, type Db } from '../../database/db'
import { onPiece } from '../piece/pieces'
import { readPiece } from '../piece/read'
import type { PieceFile } from '../piece/rows'
import type { Person } from '../shop/person'
import { readHours } from '../shop/rows'
import { readAsking, readPriceList, readRates } from './asking'
import { readHouse } from './house'
import { choiceOf, insertStep, readPlan, type StoredPlan, writeWaits } from './rows'

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
  const { house: methods, ...way } = picked
  const choice: Choice = {
    route: 'strip-chemical',
    ...way,
    ...(faces || !chosen?.own ? {} : { own: chosen.own }),
  }
  const facts = faces ? factsOfFaces(file.facts, f => faces.includes(f)) : file.facts
  const context = { ...file.context, facts, house: { ...house, ...methods } }
  const advice = await inWorker('judgeAll', { ...(await readAsking(at)), context, choice }, { signal })
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

/** What a worker needs to plan this piece again and again: what is known, rates, hours, prices and the shop's methods. */
export async function planningPage(id: number, at: Date) {
  const file = await readPiece(db(), id)
  return {
    context: file.context,
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
  const plan = await inWorker('plan', { context: file.context, choice })
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
      ? { facts: factsOfFaces(facts, f => faces.includes(f)), choice: way }
      : { facts, choice: { ...way, ...(chosen?.own ? { own: chosen.own } : {}) } }
    const verdict = await inWorker('judgeOne', {
      ...(await readAsking(at, tx)),
      context: { ...file.context, facts: judged.facts, house: methods },
      choice: judged.choice,
    })
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
        `Route: ${names}${ROUTE_NAMES[way.route]}, finish ${materialOf(way.finish).name}, colour ` +
        `${way.colour === 'none' ? 'none' : materialOf(way.colour).name}. ` +
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
    return { kind: 'route', says: `Route: all faces go one way. ${ROUTE_NAMES[main.route]}`, result: { ok: true } }
  })

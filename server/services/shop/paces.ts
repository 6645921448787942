/** How long the shop's own hands really take, by kind of work and shape. */
import { actOf, STEP_KINDS, type StepKind } from '#core/acts'
import { learnPaces, type Pace, type Work, type Worked, worksAs } from '#core/schedule'
import type { Face } from '#core/piece'
import { db, type Db, transaction } from '../../database/db'
import { logShop, tell } from '../platform/log'
import type { Person } from './person'

/** Older work says nothing of today's hands. */
const YEARS = 3
const SHAPES = ['flat', 'profiled', 'turned', 'carved', null] as const
const KNOWN = new Set<string>(STEP_KINDS)

const readWorked = async (at: Date, on: Db): Promise<Worked[]> =>
  (
    await on.rows<{ kind: string; shape: Face['shape'] | null; planned_min: number; real_min: number }>(
      `SELECT s.kind, s.attended_min AS planned_min,
          (SELECT face.shape
            FROM plan_step_face
            JOIN face ON face.id = plan_step_face.face_id
            WHERE plan_step_face.step_id = s.id
            GROUP BY face.shape
            ORDER BY SUM(face.length_mm * face.width_mm * face.copies) DESC
            LIMIT 1) AS shape,
          SUM(TIMESTAMPDIFF(SECOND, w.from_at, w.to_at)) / 60 AS real_min
          FROM work_spell w
          JOIN plan_step s ON s.id = w.step_id AND s.state = 'done'
          JOIN shop ON shop.id = 1
          WHERE w.to_at > :at - INTERVAL ${YEARS} YEAR AND (shop.paces_from IS NULL OR w.from_at >= shop.paces_from)
          GROUP BY s.id, s.kind, s.attended_min`,
      { at },
    )
  ).flatMap(r => (KNOWN.has(r.kind) ? [{ ...r, kind: r.kind as StepKind, shape: r.shape && worksAs(r.shape) }] : []))

export const readPaces = async (at: Date, on: Db = db()): Promise<(of: Work) => Pace> =>
  learnPaces(await readWorked(at, on))

/** Kinds of work that were done, those that were done most first. */
export async function pacesPage(at: Date) {
  const pace = await readPaces(at)
  const kinds = STEP_KINDS.flatMap(kind =>
    SHAPES.map(shape => ({ kind, shape, called: actOf({ kind }).called, ...pace({ kind, shape }) })),
  )
  return { kinds: kinds.filter(k => k.seen > 0).sort((a, b) => b.seen - a.seen) }
}

const learnFrom = (tx: Db, from: Date | null) => tx.run('UPDATE shop SET paces_from = :from WHERE id = 1', { from })

/** Work so far teaches no pace any more; `was` is the moment that it taught from until now. */
export const forgetPaces = (by: Person, at: Date) =>
  transaction(async tx => {
    const before = await tx.row<{ was: Date | null }>('SELECT paces_from AS was FROM shop WHERE id = 1')
    await learnFrom(tx, at)
    await logShop(tx, 'shop', 'Minutes as they were: begun from again', at, by.id)
    await tell(tx, 'shop', null, at)
    return { was: before?.was?.toISOString() ?? null }
  })

/** Work since a moment, or all of it, teaches again. */
export const recallPaces = (from: string | null, by: Person, at: Date) =>
  transaction(async tx => {
    await learnFrom(tx, from === null ? null : new Date(from))
    await logShop(tx, 'shop', 'Minutes as they were learnt', at, by.id)
    await tell(tx, 'shop', null, at)
    return { ok: true }
  })

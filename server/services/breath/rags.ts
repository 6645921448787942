/** Oily rags: asked about when oil was laid, and shown until they are gone. */
import type { z } from 'zod'
import { heatsRags } from '#core/materials'
import { ASKED_FOR_H, SHOWN_FOR_H, type RagWay, ragState } from '#core/safety'
import type * as s from '#shared/schemas'
import { db, type Db, transaction } from '../../database/db'
import { log, tell } from '../platform/log'
import { readTitles } from '../plan/titles'
import type { Person } from '../shop/person'

interface Row {
  step_id: number
  piece_id: number
  piece: string
  product: string
  finished_at: Date
  how: RagWay | null
  at: Date | null
}
const readRows = async (on: Db, now: Date) =>
  (
    await on.rows<Row>(
      `SELECT st.id AS step_id, piece.id AS piece_id, piece.name AS piece, st.product, st.finished_at,
          rag.how, rag.at
          FROM plan_step st
          JOIN piece ON piece.id = st.piece_id
          LEFT JOIN rag ON rag.step_id = st.id
          WHERE st.state = 'done' AND st.product IS NOT NULL
            AND st.finished_at BETWEEN :now - INTERVAL ${SHOWN_FOR_H} HOUR AND :now
            AND (rag.how IS NOT NULL OR st.finished_at > :now - INTERVAL ${ASKED_FOR_H} HOUR)
          ORDER BY st.finished_at`,
      { now },
    )
  ).filter(r => heatsRags(r.product))

/** Those of one answer stand together: what was wiped on one morning lies in one place. */
export async function ragsPage(at: Date) {
  const rows = (await readRows(db(), at)).filter(r => r.how !== 'gone')
  const title = await readTitles(
    db(),
    rows.map(r => r.step_id),
  )
  const lines = rows.map(r => ({
    ...{ stepId: r.step_id, pieceId: r.piece_id, piece: r.piece, title: title(r.step_id), since: r.finished_at },
    ...ragState({ since_ms: (r.at ?? r.finished_at).getTime(), how: r.how }, at.getTime()),
  }))
  const STATES = ['ask', 'stiff', 'stiffening', 'wet'] as const
  return STATES.flatMap(state => {
    const of = lines.filter(l => l.state === state)
    if (of.length === 0) return []
    const safe_ms = Math.max(...of.map(l => l.safe_ms ?? 0)) || null
    return [{ state, safe_ms, lines: of }]
  })
}

const SAID = {
  flat: 'laid flat in the open',
  water: 'under water, lid on',
  gone: 'taken away',
  ask: 'not said',
} as const
export const sayRags = ({ stepIds, how }: z.infer<typeof s.sayRags>, person: Person, at: Date) =>
  transaction(async tx => {
    const rows = (await readRows(tx, at)).filter(r => stepIds.includes(r.step_id))
    const all = how === 'ask' ? stepIds : rows.map(r => r.step_id)
    if (how !== 'ask' && rows.length === 0) throw fail(409, 'nothing', 'Nobody is asked about these rags any more.')
    for (const stepId of all)
      if (how === 'ask') await tx.run('DELETE FROM rag WHERE step_id = :stepId', { stepId })
      else
        await tx.run('REPLACE INTO rag (step_id, how, at, person_id) VALUES (:stepId, :how, :at, :by)', {
          ...{ stepId, how, at, by: person.id },
        })
    for (const pieceId of new Set(rows.map(r => r.piece_id)))
      await log(tx, {
        ...{ pieceId, kind: 'rags', says: `Oily rags: ${SAID[how]}`, at, recordedAt: at, personId: person.id },
      })
    await tell(tx, 'air', null, at)
    return { ok: true }
  })

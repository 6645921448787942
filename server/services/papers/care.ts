/** The care sheet of a piece, or what must follow where it went home part done. */
import { DateTime } from 'luxon'
import { cautionsOfStep, does } from '#core/acts'
import { type CareFinish, carePaper, type PaperSize, type PartDone, useFrom } from '#core/papers'
import { cautionText } from '#core/safety'
import { db } from '../../database/db'
import { finishesLaid, renewOn } from '../piece/handOver'
import { readPiece } from '../piece/read'
import type { PieceFile } from '../piece/rows'
import { readPlan, type StoredPlan } from '../plan/rows'
import { readShop } from '../shop/rows'
import { dayIn } from '../shop/words'
import { paperFile, waitSaid } from './paper'

/** What its owner must do, each step with how long after the one before. */
function partOf({ facts, context }: PieceFile, plan: StoredPlan): PartDone | null {
  const left = plan.steps.filter(st => st.state === 'planned' && st.kind !== 'approval' && st.kind !== 'gate')
  if (left.length === 0) return null
  const next = left.map(st => {
    const wait = waitSaid(plan, st.key)
    // a coat that comes too late holds again once it is scuffed; other windows do not open again
    const late = does(st, 'covers') && /not after/.test(wait) ? ' (later: scuff first)' : ''
    return `${st.title}${wait && `: ${wait} after the step before`}${late}`
  })
  return {
    next,
    mustNot: [
      'No silicone, no polish, no wax before the last coat: nothing holds on it.',
      'No other product than those named, unless it was tried on a hidden place.',
      'No use, no water, nothing laid on it before the last coat has cured.',
      ...(facts.marks.length ? [`Do not sand or cover: ${facts.marks.join(', ')}.`] : []),
    ],
    mind: [...new Set(left.flatMap(st => cautionsOfStep(st, context, { shared: false }).map(cautionText)))],
  }
}

/** @param asPart as it would be if it went home part done now */
export async function careFile(id: number, size: PaperSize | undefined, at: Date, asPart = false) {
  const file = await readPiece(db(), id)
  const { piece, faces } = file
  const [plan, shop] = [await readPlan(db(), file), await readShop()]
  const laid = finishesLaid(file, plan)
  const partDone = piece.state === 'part-done' || asPart ? partOf(file, plan) : null
  // what goes home part done has its sheet for what must follow, however little was laid
  if (laid.length === 0 && !partDone) throw fail(409, 'nothing', 'No finish was laid on it yet; then there is a sheet.')
  const day = dayIn(shop)
  const done = piece.handed_over_at ?? at
  const wanted = faces.filter(f => f.scope === 'refinish').length
  const finishes = laid.map(({ material, faces: its, laid_ms }): CareFinish => {
    const from = useFrom(material, laid_ms)
    return {
      material,
      faces:
        its.length < wanted
          ? faces
              .filter(f => its.includes(f.id))
              .map(f => `${f.part}, ${f.name}`)
              .join('; ')
          : '',
      from:
        // what is not finished is not used, and its days are not known yet
        partDone || from.hard_ms < done.getTime()
          ? null
          : {
              ...{ touched: day(new Date(from.touched_ms)), laidOn: day(new Date(from.laidOn_ms)) },
              ...{ washed: day(new Date(from.washed_ms)), hard: day(new Date(from.hard_ms)) },
            },
    }
  })
  const renew = piece.renew_on ?? renewOn(file, plan, done)
  const paper = carePaper({
    ...{ id, shop: shop.name, client: piece.client_name, piece: piece.name, madeOn: day(done), finishes },
    renewIn: renew && !partDone ? DateTime.fromISO(renew).setLocale('en-GB').toFormat('LLLL yyyy') : '',
    partDone,
  })
  return { name: `care-${id}.pdf`, data: await paperFile(paper, size, shop) }
}

/** The bench ticket, as it hangs beside the work. */
import { cautionsOfStep } from '#core/acts'
import { type PaperSize, ticketPaper } from '#core/papers'
import { cautionText } from '#core/safety'
import { db } from '../../database/db'
import { readPiece } from '../piece/read'
import { readPlan } from '../plan/rows'
import { readShop } from '../shop/rows'
import { dayIn } from '../shop/words'
import { pageOf, paperFile, sectionPart, surfaceOf, waitSaid } from './paper'

export async function ticketFile(id: number, size: PaperSize | undefined, at: Date) {
  const file = await readPiece(db(), id)
  const plan = await readPlan(db(), file)
  const shop = await readShop()
  const day = dayIn(shop)
  const names = new Map(file.faces.map(f => [f.id, `${f.part}, ${f.name}`]))
  const all = file.faces.filter(f => f.scope === 'refinish').length
  const paper = ticketPaper({
    ...{ id, piece: file.piece.name, client: file.piece.client_name, shop: shop.name, madeOn: day(at) },
    ...{ dueOn: file.piece.due_on ? day(file.piece.due_on) : '', surface: surfaceOf(file), marks: file.facts.marks },
    section: sectionPart(file, plan, at),
    steps: plan.steps
      .filter(st => st.state !== 'skipped' && st.kind !== 'approval')
      .map(st => ({
        title: st.title,
        faces: st.faces.length < all ? st.faces.map(f => names.get(f) ?? '').join('; ') : '',
        ...{ minutes: st.attended_min, amount: st.amount_ml === null ? '' : `${Math.round(st.amount_ml)} ml` },
        wait: waitSaid(plan, st.key),
        cautions: cautionsOfStep(st, file.context, { shared: Boolean(file.piece.one_room) && !st.outside }).map(
          cautionText,
        ),
        done: st.state === 'done',
      })),
    address: pageOf(`/pieces/${id}/plan`),
  })
  return { name: `ticket-${id}.pdf`, data: await paperFile(paper, size, shop) }
}

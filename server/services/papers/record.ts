/** What was found and done, and how it comes off again: for owner or museum. */
import { does } from '#core/acts'
import { taken } from '#core/materials'
import { type PaperSize, recordPaper } from '#core/papers'
import { saidSlug } from '#core/units'
import { db } from '../../database/db'
import { readPiece } from '../piece/read'
import { readPlan } from '../plan/rows'
import { readUsed } from '../plan/used'
import { readShop } from '../shop/rows'
import { dayIn, shortDayIn } from '../shop/words'
import { paperFile } from './paper'

export async function recordFile(id: number, size: PaperSize | undefined, at: Date) {
  const file = await readPiece(db(), id)
  const [plan, used, shop] = [await readPlan(db(), file), await readUsed(db(), id), await readShop()]
  const day = dayIn(shop)
  const done = plan.steps.filter(st => st.state === 'done' && st.kind !== 'approval')
  const names = new Map(file.faces.map(f => [f.id, `${f.part}, ${f.name}`]))
  const laid = done.flatMap(st =>
    does(st, 'finishes') || does(st, 'colours') ? (taken(file.context.shelf, st) ?? []) : [],
  )
  const paper = recordPaper({
    ...{ id, shop: shop.name, client: file.piece.client_name, piece: file.piece.name, madeOn: day(at) },
    takenInOn: day(file.piece.taken_in_at),
    found: file.facts.findings.map(f => `${names.get(f.faceId) ?? ''}: ${saidSlug(f.kind)}, grade ${f.grade} of 5`),
    finishes: file.concluded.finishes.flatMap(g =>
      g.layers.map(l => `Finish ${g.group}: ${saidSlug(l.finish)}, ${Math.round(l.certainty * 100)} % sure`),
    ),
    tests: file.tests.map(x => `Test ${saidSlug(x.test)}: ${x.result}`),
    steps: done.map(st => ({
      on: st.finished_ms === null ? '' : shortDayIn(shop)(new Date(st.finished_ms)),
      title: st.title,
      used: (used.get(st.id) ?? []).map(u => u.name).join('; '),
    })),
    materials: [...new Map(laid.map(m => [m.slug, m])).values()],
    kept: [...file.facts.marks, ...(file.piece.keep_patina ? ['its patina'] : [])],
  })
  return { name: `record-${id}.pdf`, data: await paperFile(paper, size, shop) }
}

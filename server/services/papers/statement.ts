/** What was done and what it comes to, at the end. */
import { type PaperSize, statementPaper } from '#core/papers'
import { db } from '../../database/db'
import { readExtras } from '../client/extras'
import { storedOf } from '../client/houseRules'
import { readPiece } from '../piece/read'
import { costOf } from '../plan/cost'
import { readPlan } from '../plan/rows'
import { timesOf } from '../plan/stages'
import { readShop } from '../shop/rows'
import { dayIn, moneyIn } from '../shop/words'
import { paperFile } from './paper'

export async function statementFile(id: number, size: PaperSize | undefined, at: Date) {
  const file = await readPiece(db(), id)
  const plan = await readPlan(db(), file)
  const done = plan.steps.filter(st => st.state === 'done' && st.kind !== 'approval')
  if (done.length === 0) throw fail(409, 'nothing', 'Nothing of this piece is done yet.')
  const [shop, extras] = [await readShop(), await readExtras(db(), id)]
  const cost = await costOf(id, plan, extras)
  const extra_minor = extras.reduce((sum, e) => sum + e.price_minor, 0)
  const paper = statementPaper(
    {
      ...{ id, shop: shop.name, client: file.piece.client_name, piece: file.piece.name, madeOn: dayIn(shop)(at) },
      lines: timesOf(done),
      ...{ labour_minor: cost.labour_minor, materials_minor: cost.materials_minor, extras, tax_bp: shop.tax_bp },
      tax_minor: cost.soFar_minor - cost.labour_minor - cost.materials_minor,
      actual_minor: cost.soFar_minor + extra_minor,
      ...{ agreed_minor: file.piece.agreed_minor, worst_minor: file.piece.accepted_worst_minor },
      ...{ storage: storedOf(file.piece, shop, at), deposit_minor: file.piece.deposit_minor },
    },
    moneyIn(shop.currency),
  )
  return { name: `work-done-${id}.pdf`, data: await paperFile(paper, size, shop) }
}

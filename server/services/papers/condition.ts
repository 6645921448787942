/** The condition of a piece with what is planned for it: for its owner, an insurer, a museum. */
import { cautionsOfStep } from '#core/acts'
import type { PaperSize, PlanSaid } from '#core/papers'
import { cautionText } from '#core/safety'
import { db } from '../../database/db'
import { workedOut } from '../client/figures'
import { freshOutlook } from '../client/outlook'
import { reportText } from '../examination/reports'
import { readPiece } from '../piece/read'
import { readAsking } from '../plan/asking'
import { readPlan } from '../plan/rows'
import { stagesOf } from '../plan/stages'
import type { Person } from '../shop/person'
import { readShop } from '../shop/rows'
import { dayIn } from '../shop/words'
import { readFonts, sectionPart, sizeOf, surfaceOf } from './paper'

/** What is planned, in words; null: no way is chosen yet. */
async function planSaid(id: number, at: Date): Promise<PlanSaid | null> {
  const file = await readPiece(db(), id)
  const plan = await readPlan(db(), file)
  const live = plan.steps.filter(st => st.state !== 'skipped' && st.kind !== 'approval')
  if (live.length === 0) return null
  const [shop, asking] = [await readShop(), await readAsking(at)]
  await freshOutlook(id, at)
  const { told, readyLikely, readySafe } = await workedOut(db(), id, at, asking)
  const left = live.filter(st => st.state !== 'done')
  const day = dayIn(shop)
  return {
    ...{ surface: surfaceOf(file), section: sectionPart(file, plan, at), gate: told.gate },
    stages: stagesOf(live).map(({ says, steps }) => ({ says, steps: steps.map(st => st.title) })),
    ...(left.length
      ? { readyLikely: day(readyLikely), readySafe: day(readySafe) }
      : { readyLikely: '', readySafe: '' }),
    cautions: [
      ...new Set(
        left.flatMap(st =>
          cautionsOfStep(st, file.context, { shared: Boolean(file.piece.one_room) && !st.outside }).map(cautionText),
        ),
      ),
    ],
  }
}

export async function conditionFile(id: number, size: PaperSize | undefined, person: Person, at: Date) {
  const [content, plan, shop] = [await reportText(id, person, at), await planSaid(id, at), await readShop()]
  const fonts = await readFonts()
  return {
    name: `condition-and-plan-${id}.pdf`,
    data: await inWorker('reportFilePdf', { content, plan, fonts, zone: shop.zone, size: sizeOf(size, shop) }),
  }
}

/** What a client of this piece may be asked about. */
import { share_minor } from '#core/estimate'
import { FINISHES } from '#core/materials'
import { finishLayer } from '#core/build'
import { db } from '../../database/db'
import { readBands } from '../colour/bandRows'
import { readQuotations } from '../papers/quotation'
import { readPiece } from '../piece/read'
import { type OwnRoute, ROUTE_AT_HOME } from '#core/piece'
import type { PieceFile } from '../piece/rows'
import { readAsking } from '../plan/asking'
import { beganWork } from '../plan/choose'
import { foundSince } from '../plan/found'
import { costOf } from '../plan/cost'
import { readPlan, type StoredPlan } from '../plan/rows'
import { readShop } from '../shop/rows'
import { readExtras } from './extras'
import { storedOf } from './houseRules'
import { countPieceLinks } from './links'

/** As it goes it will cost more than the worst that was agreed: the question to ask; null: it will not. */
async function beyondOf({ piece }: PieceFile, plan: StoredPlan) {
  const agreed_minor = piece.accepted_worst_minor
  if (agreed_minor === null) return null
  const { foreseen_minor } = await costOf(piece.id, plan, await readExtras(db(), piece.id))
  return foreseen_minor > agreed_minor ? { agreed_minor, foreseen_minor } : null
}

/** Ways that this piece may go and that a client can tell from the planned one; none once work began. */
async function waysFor({ choice, context }: PieceFile, plan: StoredPlan, at: Date): Promise<OwnRoute[]> {
  if (!choice || beganWork(plan)) return []
  const { verdicts } = await inWorker('judgeAll', { ...(await readAsking(at)), context, choice })
  const [main] = choice.buildUps
  const said = new Set([ROUTE_AT_HOME[main.ground]])
  return verdicts.flatMap(({ standing, route }) => {
    const home = ROUTE_AT_HOME[route]
    if (standing === 'ruled-out' || route === 'refer' || said.has(home)) return []
    said.add(home)
    return [route]
  })
}

export async function askingPage(id: number, at: Date) {
  const file = await readPiece(db(), id)
  const plan = await readPlan(db(), file)
  const shop = await readShop()
  const bands = await readBands(db(), id)
  const finish = finishLayer(file.choice?.buildUps[0].layers ?? [])?.product ?? null
  const found = await foundSince(file, plan)
  return {
    /** is there a plan that the client has not said yes to? */
    surface: plan.steps.some(st => st.kind === 'approval' && st.state === 'planned'),
    /** finishes to offer beside it; none once work began */
    beside: finish === null || beganWork(plan) ? [] : FINISHES.filter(f => f !== finish),
    /** other ways that may be offered beside it */
    ways: await waysFor(file, plan, at),
    found: found && [...found.added, ...found.changed],
    hardware: file.items
      .filter(i => i.kind === 'hardware' && i.state !== 'present')
      .map(i => ({ id: i.id, mark: i.mark, name: i.name, state: i.state, answer: i.answer })),
    bands: bands.filter(b => b.clear_coat !== null && b.spectrum !== null).map(b => ({ id: b.id, title: b.title })),
    photographs: await db().rows<{ address: string; caption: string; released: 0 | 1 }>(
      'SELECT address, caption, released FROM photograph WHERE piece_id = :id ORDER BY id DESC LIMIT 60',
      { id },
    ),
    /** is there anything for a colour card? */
    colours: bands.length > 0,
    /** is there a price that was agreed to? */
    agreed: file.piece.accepted_worst_minor !== null,
    beyond: await beyondOf(file, plan),
    dueOn: file.piece.due_on,
    /** asked for before work begins, by the agreed price and the rule of the house; what was paid */
    deposit: {
      asked_minor: share_minor(file.piece.agreed_minor ?? 0, shop.deposit_bp),
      paid_minor: file.piece.deposit_minor,
    },
    storage: storedOf(file.piece, shop, at),
    links: await countPieceLinks(id, at),
    quotations: await readQuotations(id),
  }
}

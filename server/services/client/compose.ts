/** A question put together: its items with what each option is, does and costs, every choice of them worked out. */
import type { z } from 'zod'
import type { Step } from '#core/acts'
import {
  choicesOf,
  type ItemKind,
  type ItemShown,
  MOST_SUMS,
  type OptionShown,
  overruns,
  overrunSaid,
  type Sum,
} from '#core/approval'
import { finishLayer, finishMaterial } from '#core/build'
import { bandSvg, differencesUnder, gradeOf, type Light, LIGHTS } from '#core/colour'
import type { Asking } from '#core/ground'
import { materialOf } from '#core/materials'
import { ITEM_ANSWERS, itemQuestion } from '#core/parts'
import { isRoute, ROUTE_AT_HOME } from '#core/piece'
import { holesSvg } from '#core/parts/drawing'
import { saidSlug } from '#core/units'
import { speciesOf } from '#core/wood'
import type * as s from '#shared/schemas'
import type { Db } from '../../database/db'
import { type BandRow, readBands } from '../colour/bandRows'
import { type ReadingRow, READINGS } from '../colour/readings'
import type { PieceFile } from '../piece/rows'
import { readAsking } from '../plan/asking'
import { beganWork, type Surface, writeBeside } from '../plan/choose'
import { knownOf } from '../plan/findings'
import { changedBy, writeFound } from '../plan/found'
import { readPlan } from '../plan/rows'
import { timesOf } from '../plan/stages'
import { DAY_MS } from '../platform/digest'
import { readShop } from '../shop/rows'
import { moneyIn } from '../shop/words'
import { asIf, type Figures, type Told, type Worked, workedOut } from './figures'
import { HARDWARE_SAYS } from './rows'

/** What an item does when its option is chosen; kept with what was shown. */
export type Effect =
  /** by option: the surface to take instead of what stands (null: as it stands), without and with what was found */
  | { kind: 'surface'; without: (Surface | null)[]; with: (Surface | null)[]; found: readonly Step[] | null }
  | { kind: 'found'; steps: readonly Step[] | null }
  | { kind: 'work'; says: string; price_minor: number; days: number }
  | { kind: 'hardware'; itemId: number; prices: number[]; days: number[]; name: string }
  | { kind: 'colour'; bandIds: number[] }
  | { kind: 'date'; dueOn: string }
  | { kind: 'cost'; most_minor: number }
export interface Draft {
  item: Omit<ItemShown, 'no'>
  effect: Effect
  itemId: number | null
  bandId: number | null
}
export interface Composed {
  drafts: Draft[]
  sums: Sum[]
  /** of the plan as it stands */
  base: Figures
}
type Input = z.output<typeof s.ask>

const option = (says: string, more: Partial<OptionShown> = {}): OptionShown => ({
  ...{ says, lines: [], does: [], steps: [], stands: null, picture: '' },
  ...more,
})
const bare = { says: '', why: [], gate: null, priced: false }

interface Shop {
  tx: Db
  file: PieceFile
  at: Date
  asking: Asking
}
/** The piece by option and by whether what was found is done: figures, and what would be written. */
interface Offer {
  worked: Worked
  surface: Surface | null
}
async function offersOf({ tx, file, at, asking }: Shop, { beside, found }: Input) {
  const id = file.piece.id
  const plan = await readPlan(tx, file)
  if (beside.length > 0 && beganWork(plan))
    throw fail(409, 'started', 'Work has started: another way can be offered only before. Change steps under Plan.')
  const [main] = file.choice?.buildUps ?? []
  const home = (way: string | null | undefined) => (way && isRoute(way) ? ROUTE_AT_HOME[way] : way)
  const all = [main?.ground, finishLayer(main?.layers ?? [])?.product, ...beside].map(home)
  if (new Set(all).size < all.length)
    throw fail(422, 'invalid', 'To a client these are the same twice. Choose others beside it.', { beside: 'Twice.' })
  const made = found ? await changedBy(file, plan) : null
  if (found && !made) throw fail(409, 'nothing', 'Nothing found since would change this plan.')
  const now = await workedOut(tx, id, at, asking)
  const as = (other: (typeof beside)[number] | null, withFound: boolean): Promise<Offer> =>
    asIf(tx, async () => {
      const surface = other ? await writeBeside(tx, found && !withFound ? before(file) : file, other) : null
      if (!other && withFound) await writeFound(tx, file, plan, made!.steps)
      return { worked: await workedOut(tx, id, at, asking, now.held), surface }
    })
  const broken = (says: string | null, what: string) => {
    if (says) throw fail(409, 'rule', `${what} still breaks a rule: ${says}`)
  }
  broken(now.breaks, 'The plan')
  const rows: { without: Offer; with: Offer | null }[] = []
  for (const other of [null, ...beside]) {
    const row = {
      without: other ? await as(other, false) : { worked: now, surface: null },
      with: found ? await as(other, true) : null,
    }
    const { out, told } = row.without.worked
    if (other && isRoute(other) && out) throw fail(409, 'ruled-out', `${told.work}: ruled out on this piece. ${out}`)
    rows.push(row)
  }
  for (const { without, with: withFound } of rows) {
    broken(without.worked.breaks, `${without.worked.told.says} on this piece`)
    broken(withFound?.worked.breaks ?? null, `${without.worked.told.says}, with what was found,`)
  }
  return { rows, found: made, now }
}
/** The piece with what was known when its plan was made. */
function before(file: PieceFile): PieceFile {
  const findings = knownOf(file.piece)
  if (!findings) return file
  const facts = { ...file.facts, findings }
  return { ...file, facts, context: { ...file.context, facts } }
}

const titleOf = (ways: boolean) => (ways ? 'Which way shall it go?' : 'Which finish shall it have?')
/**
 * Where ways are offered, an option is called by what becomes of the old surface and says what may fail on it; else
 * it is called by its finish.
 */
function optionSaid({ work, says, lines, gate, why: _why, ...told }: Told, ways: boolean): OptionShown {
  const [surface = '', ...rest] = lines
  const fails =
    ways && gate ? [`This way may fail: "${gate}" Then we strip the faces; the price at worst covers it.`] : []
  if (ways) return { ...told, says: says === work ? says : `${work} · ${says}`, lines: [...lines, ...fails] }
  return { ...told, says, lines: says === work ? lines : [[work, surface].filter(Boolean).join(' · '), ...rest] }
}
function surfaceDraft(rows: Awaited<ReturnType<typeof offersOf>>['rows'], found: readonly Step[] | null): Draft {
  const first = rows[0]!.without.worked.told
  const ways = new Set(rows.map(r => r.without.worked.told.work)).size > 1
  return {
    item: {
      ...{ kind: 'surface', says: '', priced: true, why: first.why, gate: ways ? null : first.gate },
      title: rows.length > 1 ? titleOf(ways) : 'The work, the finish and the price',
      options: rows.map(({ without: { worked } }) => optionSaid(worked.told, ways)),
    },
    effect: {
      kind: 'surface',
      without: rows.map(r => r.without.surface),
      with: rows.map(r => r.with?.surface ?? null),
      found,
    },
    itemId: null,
    bandId: null,
  }
}

function hardwareDraft({ items }: PieceFile, asked: Input['hardware'][number]): Draft {
  const item = items.find(i => i.id === asked.itemId)
  if (!item) throw notFound('item')
  if (item.state === 'present')
    throw fail(
      409,
      'nothing-to-ask',
      'Nothing is wrong with it. Say first whether it is missing, mismatched or to be replaced.',
    )
  const prices = ITEM_ANSWERS.map(a => asked.prices[a])
  return {
    item: {
      ...{
        ...bare,
        kind: 'hardware',
        title: item.name.slice(0, 1).toUpperCase() + item.name.slice(1),
        priced: prices.some(p => p > 0),
      },
      says: itemQuestion(item.name, item.state, item.holes),
      options: ITEM_ANSWERS.map(a => option(HARDWARE_SAYS[a], { picture: '' })).map((o, i) =>
        i === 0 && item.holes ? { ...o, picture: holesSvg(item.holes) } : o,
      ),
    },
    effect: {
      ...{ kind: 'hardware', itemId: item.id, name: item.name, prices },
      days: ITEM_ANSWERS.map(a => (a === 'leave' ? 0 : asked.days)),
    },
    itemId: item.id,
    bandId: null,
  }
}

/** @throws Fail 409 for a band without the piece's finish, or one that was not read. */
function checkBand({ choice, context }: PieceFile, band: BandRow): void {
  if (!band.clear_coat)
    throw fail(
      409,
      'no-finish',
      'This band has no finish on it. Wood and stain look paler and greyer bare; coat the band, read it, ' +
        'and approve that.',
    )
  const finishes = (choice?.buildUps ?? []).flatMap(b => finishMaterial(b.layers, context) ?? [])
  if (finishes.length && !finishes.some(m => m.slug === band.clear_coat))
    throw fail(
      409,
      'other-finish',
      `This band lies under ${materialOf(band.clear_coat).name}; the piece gets ` +
        `${finishes[0]!.name}. Put the finish on the band, read it, and approve that.`,
    )
}
export const LIGHT_SAYS: Record<Light, string> = {
  ...{ d65: 'in daylight', d50: 'in warm daylight', a: 'by a lamp', led: 'by a warm LED', f11: 'in fluorescent light' },
}
async function colourDraft({ tx, file }: Shop, { bands: ids, light }: Input): Promise<Draft> {
  const bands = (await readBands(tx, file.piece.id)).filter(b => ids.includes(b.id))
  if (bands.length < ids.length) throw notFound('band')
  const target = await tx.row<ReadingRow>(
    `${READINGS} AND r.piece_id = :id AND r.role = 'target' ORDER BY r.id DESC LIMIT 1`,
    { id: file.piece.id },
  )
  for (const band of bands) {
    checkBand(file, band)
    await tx.run('UPDATE band SET judged_light = :light, row_version = row_version + 1 WHERE id = :id', {
      light,
      id: band.id,
    })
  }
  const optionOf = (b: BandRow): OptionShown => {
    const under = b.spectrum && target && differencesUnder(target.spectrum, b.spectrum, LIGHTS)
    const apart = under?.map(u => `${LIGHT_SAYS[u.light]}: ${saidSlug(gradeOf(u.de))}`)
    const lines = apart ? [`The difference, as we measure it: ${apart.join(' · ')}`] : []
    const picture = b.spectrum ? bandSvg(b.spectrum, target?.spectrum ?? null, LIGHTS) : ''
    return option(`Band ${b.id}: ${b.title}, on ${speciesOf(b.species).name}`, { lines, picture })
  }
  const one = bands.length === 1 ? bands[0]! : null
  return {
    item: {
      ...{ ...bare, kind: 'colour', options: bands.map(optionOf) },
      title: one ? `Is this the colour? ${optionOf(one).says}` : 'Which of these colours?',
    },
    effect: { kind: 'colour', bandIds: bands.map(b => b.id) },
    itemId: null,
    bandId: one?.id ?? null,
  }
}
/** @throws Fail 422 for a price that was agreed to already. */
async function costDraft({ tx, file }: Shop, most_minor: number): Promise<Draft> {
  const agreed = file.piece.accepted_worst_minor
  if (agreed === null)
    throw fail(409, 'nothing-to-ask', 'Nothing is agreed yet: ask about the work, its finish and the price.')
  if (most_minor <= agreed)
    throw fail(422, 'invalid', 'The client agreed to that much already.', { mostMinor: 'Not more than was agreed.' })
  const { currency } = await readShop(tx)
  const money = moneyIn(currency)
  const over = overruns(timesOf((await readPlan(tx, file)).steps))
  return {
    item: {
      ...{ ...bare, kind: 'cost', title: 'It will cost more than was agreed' },
      says: `${money(agreed)} at worst was agreed. ${overrunSaid(over)}`.trim(),
      options: [option(`Go on, for ${money(most_minor)} at most`)],
    },
    effect: { kind: 'cost', most_minor },
    ...{ itemId: null, bandId: null },
  }
}
/** Which of a question's items the price hangs on, in order, with how often each may be chosen. */
const PRICED_MISS: Record<ItemKind, boolean> = {
  ...{ surface: false, found: true, work: true, hardware: true, colour: true, date: true, cost: true },
}
function sumsOf(
  drafts: readonly Draft[],
  rows: Awaited<ReturnType<typeof offersOf>>['rows'],
  base: Figures,
  waits_d: number,
): Sum[] {
  const choices = choicesOf(
    drafts.map(({ item }) => ({
      options: item.priced ? item.options.length : 0,
      mayMiss: !item.priced || PRICED_MISS[item.kind],
    })),
  )
  if (!choices)
    throw fail(422, 'too-many', `These are more than ${MOST_SUMS} ways to choose. Ask in two questions instead.`)
  if (!drafts.some(d => d.item.priced)) return []
  return choices.map(picks => {
    let [row, found, more, days] = [rows[0], false, 0, 0]
    drafts.forEach(({ effect }, i) => {
      const pick = picks[i] ?? null
      if (pick === null) return
      if (effect.kind === 'surface') row = rows[pick]
      if (effect.kind === 'found') found = true
      if (effect.kind === 'work') [more, days] = [more + effect.price_minor, Math.max(days, effect.days)]
      if (effect.kind === 'hardware') [more, days] = [more + effect.prices[pick]!, Math.max(days, effect.days[pick]!)]
    })
    const its: Figures = (found ? row?.with?.worked : row?.without.worked) ?? base
    const day = (iso: string, more_d: number) =>
      iso && new Date(Date.parse(iso) + more_d * DAY_MS).toISOString().slice(0, 10)
    return {
      ...{ picks, likely_minor: its.likely_minor + more, worst_minor: its.worst_minor + more },
      // likely when answered at once, safe when answered on the last day
      ...{ readyLikely: day(its.readyLikely, days), readySafe: day(its.readySafe, days + waits_d) },
    }
  })
}

/** @throws Fail 422 for a question without an item, or with more ways to choose than can be worked out. */
export async function composed(tx: Db, file: PieceFile, input: Input, at: Date): Promise<Composed> {
  const shop: Shop = { tx, file, at, asking: await readAsking(at, tx) }
  const planned = input.surface || input.found
  const offers = planned ? await offersOf(shop, input) : null
  const base =
    offers?.now ??
    (input.work.length || input.hardware.length ? await workedOut(tx, file.piece.id, at, shop.asking) : null)
  const drafts: Draft[] = []
  const found = offers?.found ?? null
  const alone = { itemId: null, bandId: null }
  if (input.surface) drafts.push(surfaceDraft(offers!.rows, found?.steps ?? null))
  if (input.found)
    drafts.push({
      item: {
        ...{ ...bare, kind: 'found', title: 'More was found', priced: true },
        options: [option('Do this as well', { lines: [...found!.added, ...found!.changed].map(st => st.title) })],
      },
      effect: { kind: 'found', steps: input.surface ? null : found!.steps },
      ...alone,
    })
  for (const { says, priceMinor: price_minor, days } of input.work)
    drafts.push({
      item: { ...{ ...bare, kind: 'work', title: says, priced: true }, options: [option('Do this as well')] },
      effect: { kind: 'work', says, price_minor, days },
      ...alone,
    })
  for (const asked of input.hardware) drafts.push(hardwareDraft(file, asked))
  if (input.bands.length > 0) drafts.push(await colourDraft(shop, input))
  if (input.dueOn)
    drafts.push({
      item: {
        ...{ ...bare, kind: 'date', title: 'A later day' },
        says: file.piece.due_on ? `It was promised for ${file.piece.due_on}.` : '',
        options: [option(`Ready by ${input.dueOn}`)],
      },
      effect: { kind: 'date', dueOn: input.dueOn },
      ...alone,
    })
  if (input.mostMinor !== null) drafts.push(await costDraft(shop, input.mostMinor))
  if (drafts.length === 0) throw fail(422, 'invalid', 'Ask about something: choose what the client is to answer.')
  const none: Figures = { likely_minor: 0, worst_minor: 0, readyLikely: '', readySafe: '' }
  return { drafts, sums: sumsOf(drafts, offers?.rows ?? [], base ?? none, input.days), base: base ?? none }
}

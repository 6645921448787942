import type { Colour, Finish } from '#core/materials'
import type { ItemAnswer, ItemState } from '#core/parts'
import type { Facts, RouteSlug } from '#core/piece'
import type { Db } from '../../database/db'
import type { ColourShown } from '../colour/bandRows'

/** What a client is shown about hardware. */
export interface ItemShown {
  about: 'item'
  shop: string
  piece: string
  client: string
  words: string
  mark: string
  item: string
  state: ItemState
  question: string
  answerBy: string | null
}
/** What is done, in everyday words. */
export interface WorkShown {
  work: string
  surface: readonly string[]
}
/** Questions asked before there were layers hold the slugs of what was picked. */
interface PicksShown {
  version?: undefined
  route: RouteSlug
  finish: Finish
  colour: Colour
  ways?: readonly { faces: string; route: RouteSlug; finish: Finish }[]
}
interface WordsShown extends WorkShown {
  version: 2
  ways: readonly ({ faces: string } & WorkShown)[]
}
/** What a client is shown about route and price. Everything on the client's page comes from here. */
export type Shown = PlanShown & (PicksShown | WordsShown)
interface PlanShown {
  about: 'plan'
  shop: string
  piece: string
  client: string
  sheen: Facts['sheen']
  tone: string
  words: string
  currency: string
  likely_minor: number
  worst_minor: number
  readyLikely: string
  readySafe: string
  answerBy: string | null
  why: readonly string[]
  gate: string | null
  steps: readonly string[]
}

export interface ApprovalRow {
  id: number
  piece_id: number
  snapshot_id: number
  step_key: string
  item_id: number | null
  band_id: number | null
  choice: ItemAnswer | null
  state: 'open' | 'yes' | 'no' | 'superseded'
  likely_minor: number
  worst_minor: number
  asked_at: Date
  expires_at: Date
  answered_at: Date | null
  answered_via: 'link' | 'phone' | 'counter' | null
  answered_name: string | null
  answer_word: string
}

export const expired = (a: ApprovalRow, at: Date) => a.state === 'open' && a.expires_at < at

export type Answer = 'yes' | 'no' | ItemAnswer
export const isChoice = (answer: Answer): answer is ItemAnswer => answer !== 'yes' && answer !== 'no'

/** A question to a client, locked after its piece, as everywhere. */
export async function readApproval(tx: Db, id: number): Promise<ApprovalRow> {
  await tx.row(
    'SELECT piece.id FROM piece WHERE piece.id = (SELECT piece_id FROM approval WHERE id = :id) FOR UPDATE',
    { id },
  )
  const a = await tx.row<ApprovalRow>('SELECT * FROM approval WHERE id = :id FOR UPDATE', { id })
  if (!a) throw notFound('question to a client')
  return a
}

/** Questions asked before hardware could be asked about carry no `about`. */
export function shownOf(content: string): Shown | ItemShown | ColourShown {
  const { shown } = JSON.parse(content) as { shown: Shown | ItemShown | ColourShown }
  return { ...shown, about: shown.about ?? 'plan' } as Shown | ItemShown | ColourShown
}

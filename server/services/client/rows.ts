import type { Answers, ItemKind, ItemShown, ItemStanding, OptionShown, QuestionShown, Reply } from '#core/approval'
import { ITEM_ANSWERS } from '#core/parts'
import { materialOf } from '#core/materials'
import { ROUTE_NAMES, type RouteSlug } from '#core/piece'
import type { Db } from '../../database/db'

export interface ApprovalRow {
  id: number
  piece_id: number
  snapshot_id: number
  step_key: string
  state: 'open' | 'yes' | 'no' | 'talk' | 'superseded'
  likely_minor: number
  worst_minor: number
  asked_at: Date
  expires_at: Date
  answered_at: Date | null
  answered_via: 'link' | 'phone' | 'counter' | null
  answered_name: string | null
  answer_word: string
  reminded: number
}
export interface QuestionItemRow {
  id: number
  approval_id: number
  no: number
  kind: ItemKind
  item_id: number | null
  band_id: number | null
  state: ItemStanding
  option_no: number | null
}

export const expired = (a: Pick<ApprovalRow, 'state' | 'expires_at'>, at: Date) =>
  a.state === 'open' && a.expires_at < at

/** What was said, by the item's number. */
export const repliesOf = (items: readonly QuestionItemRow[]): Answers =>
  new Map(
    items.flatMap((i): [number, Reply][] => {
      if (i.state === 'yes') return [[i.no, i.option_no ?? 0]]
      return i.state === 'no' || i.state === 'talk' ? [[i.no, i.state]] : []
    }),
  )

export const readItems = (on: Db, approvalIds: readonly number[]): Promise<QuestionItemRow[]> =>
  approvalIds.length === 0
    ? Promise.resolve([])
    : on.rows<QuestionItemRow>(
        'SELECT * FROM question_item WHERE approval_id IN (:approvalIds) ORDER BY approval_id, no',
        {
          approvalIds,
        },
      )

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

/** What a client was shown before a question had items: about one thing, with the client's name in it. */
interface Former {
  about?: 'plan' | 'item' | 'colour'
  version?: 2
  shop: string
  piece: string
  client: string
  words: string
  currency?: string
  question?: string
  item?: string
  work?: string
  surface?: readonly string[]
  route?: string
  finish?: string
  sheen?: string
  ways?: readonly { faces: string; work?: string; surface?: readonly string[]; route?: string; finish?: string }[]
  why?: readonly string[]
  gate?: string | null
  steps?: readonly string[]
  likely_minor?: number
  worst_minor?: number
  readyLikely?: string
  readySafe?: string
  answerBy: string | null
}
/** Grounds that were two once, as clients were shown them. */
const FORMER_GROUND: Record<string, string> = {
  'scuff-and-recoat': 'Scuff and recoat',
  'scuff-and-gel': 'Scuff and gel stain',
}
const groundName = (slug = '') => FORMER_GROUND[slug] ?? ROUTE_NAMES[slug as RouteSlug] ?? slug
const plainOption = (says: string, more: Partial<OptionShown> = {}): OptionShown => ({
  ...{ says, lines: [], does: [], steps: [], stands: null, picture: '' },
  ...more,
})
export const HARDWARE_SAYS = {
  replace: 'Replace it',
  match: 'Find one that matches',
  leave: 'Leave it as it is',
} as const

const surfaceOf = ({ surface, finish }: Pick<Former, 'surface' | 'finish'>): readonly string[] =>
  surface ?? (finish ? [materialOf(finish).name] : [])

function formerItem(was: Former, picture: string): ItemShown {
  const none = { no: 1, says: '', why: [], gate: null, priced: false }
  if (was.about === 'item') {
    const options = ITEM_ANSWERS.map(a => plainOption(HARDWARE_SAYS[a]))
    return { ...none, kind: 'hardware', title: was.item ?? '', says: was.question ?? '', options }
  }
  if (was.about === 'colour') {
    const options = [plainOption('Yes, this colour', { picture })]
    return { ...none, kind: 'colour', title: was.question ?? '', options }
  }
  const ways = (was.ways ?? []).map(f => `${f.faces}: ${[f.work ?? groundName(f.route), ...surfaceOf(f)].join(', ')}`)
  const lines = [...surfaceOf(was), was.sheen ?? '', ...ways]
  const option = plainOption(was.work ?? groundName(was.route), {
    ...{ lines: lines.filter(Boolean), does: was.steps ?? [], steps: was.steps ?? [], picture },
  })
  const title = 'The work, the finish and the price'
  return {
    ...none,
    kind: 'surface',
    title,
    why: was.why ?? [],
    gate: was.gate ?? null,
    priced: true,
    options: [option],
  }
}

/** What a client is or was shown; questions from before they had items are told in the same form. */
export function shownOf(content: string, picture = ''): QuestionShown {
  const { shown } = JSON.parse(content) as { shown: QuestionShown | Former }
  if (shown.version === 3) return shown
  const item = formerItem(shown, picture)
  const { likely_minor = 0, worst_minor = 0, readyLikely = '', readySafe = '' } = shown
  return {
    ...{ version: 3, shop: shown.shop, piece: shown.piece, words: shown.words, currency: shown.currency ?? 'EUR' },
    client: { name: shown.client },
    answerBy: shown.answerBy ?? '',
    photographs: [],
    items: [item],
    sums: item.priced ? [{ picks: [0], likely_minor, worst_minor, readyLikely, readySafe }] : [],
  }
}

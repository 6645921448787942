/** Steps stored when only their English title said what they are: their fields, read out of it once. */
import type { Fields, LayerUse, Step, Typed } from './step'

export type OldStep = Omit<Step, 'fields' | 'typed'> & { byHand: boolean; cautions?: unknown }

const USES: readonly [RegExp, LayerUse][] = [
  [/barrier against contamination/i, 'against-contamination'],
  [/barrier/i, 'barrier'],
  [/under the glaze/i, 'under-glaze'],
  [/over the dry glaze/i, 'over-glaze'],
  [/under the toner/i, 'under-toner'],
  [/before the filler/i, 'before-filler'],
  [/over the filler/i, 'over-filler'],
  [/between the old film/i, 'under-lacquer'],
  [/very thin/i, 'under-shellac'],
]
const DUST: readonly [RegExp, NonNullable<Fields['dustBy']>][] = [
  [/tack/i, 'tack-cloth'],
  [/damp cloth/i, 'damp-cloth'],
  [/air and vacuum/i, 'air-only'],
  [/let the water go/i, 'after-wet'],
]
const found = <T>(title: string, list: readonly [RegExp, T][]): T | undefined =>
  list.find(([says]) => says.test(title))?.[1]

function repairsIn(title: string): Fields['repairs'] {
  const rows = [...title.matchAll(/(\d+) × ([a-z ]+?)(?=,|$)/g)]
  return rows.map(([, places, kind]) => ({ kind: kind!.trim().replaceAll(' ', '-'), places: Number(places) }))
}
function fillerIn(title: string): Fields['filler'] {
  if (/stretch/i.test(title)) return 'stretching'
  if (/strip of/i.test(title)) return 'wood-strip'
  return /tinted/i.test(title) ? 'tinted' : undefined
}
function glueIn(title: string): Fields['glue'] {
  if (/wood glue|pva/i.test(title)) return 'wood-glue'
  return /epoxy/i.test(title) ? 'epoxy' : undefined
}
function shadeIn(title: string): Fields['shade'] {
  if (/\bdark|\bband|\bedge/i.test(title)) return 'dark'
  return /\blight|\boverall/i.test(title) ? 'light' : undefined
}

const againstIn = (title: string): Fields['against'] => (/contamination/i.test(title) ? 'contamination' : 'wax')
const wipeIn = (title: string): Fields['wipe'] => (/wipe with the grain/i.test(title) ? 'with' : 'across')
function afterIn(title: string): Fields['after'] {
  if (/^cut back/i.test(title)) return 'water'
  return /^sand lightly/i.test(title) ? 'bleach' : undefined
}

/** What a title of before says, as fields. */
export function fieldsOfTitle({ kind, title }: Pick<OldStep, 'kind' | 'title'>): Fields {
  const of = Number(title.match(/(?:coat|pass|mist) \d+ of (\d+)/)?.[1]) || undefined
  const repairs = repairsIn(title)
  const given: Fields = {
    against: kind === 'solvent-wash' ? againstIn(title) : undefined,
    on: kind === 'scuff' && /the sealer/i.test(title) ? 'sealer' : undefined,
    as: kind === 'coat' || kind === 'oil-on' ? found(title, USES) : undefined,
    of,
    dustBy: kind === 'clean-off' ? found(title, DUST) : undefined,
    wipe: kind === 'fill-off' ? wipeIn(title) : undefined,
    after: kind === 'sand' || kind === 'pad' ? afterIn(title) : undefined,
    where: kind === 'rub-out' && /there only/i.test(title) ? 'spots' : undefined,
    sheen: title.match(/rub out to (matt|satin|semi-gloss|gloss)/)?.[1] as Fields['sheen'],
    filler: kind === 'mend' ? fillerIn(title) : undefined,
    glue: kind === 'mend' || kind === 'joint' ? glueIn(title) : undefined,
    repairs: repairs?.length ? repairs : undefined,
    shade: kind === 'toner' ? shadeIn(title) : undefined,
    shaken: /\bshake/i.test(title) || undefined,
    most_pct: Number(title.match(/Moisture: ([\d.]+) %/)?.[1]) || undefined,
  }
  return Object.fromEntries(Object.entries(given).filter(([, value]) => value !== undefined)) as Fields
}

/** "Changed by hand" froze title, minutes and amount of a step alike. */
export const typedOf = (byHand: boolean): Typed[] => (byHand ? ['title', 'attended_min', 'amount_ml'] : [])

/** A step as it was kept for undo, with its fields. */
export function withFields({ byHand, cautions: _cautions, ...step }: OldStep): Step {
  return { ...step, title: byHand ? step.title : '', fields: fieldsOfTitle(step), typed: typedOf(byHand) }
}

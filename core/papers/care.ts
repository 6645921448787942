/** The care sheet: what the finish is, when it may be used, how it is cleaned, renewed and mended where it is worn. */
import { everydayOf, type Material } from '../materials'
import type { Facts } from '../piece'
import type { Paper } from './paper'
import { heading, listUnder } from './parts'

export const CARE_KINDS = ['renewed', 'wax', 'melts', 'hard', 'paint'] as const
export type CareKind = (typeof CARE_KINDS)[number]
interface Care {
  clean: readonly string[]
  avoid: readonly string[]
  renew: string
  spot: string
}
const NO_SILICONE = 'No polish, spray or wipe with silicone: nothing holds on it ever after.'
const DRY = 'Dust with a soft dry cloth, along the grain.'
/** Common practice. */
export const CARE: Readonly<Record<CareKind, Care>> = {
  renewed: {
    clean: [DRY, 'A damp cloth, then dry it. When it is dirty: mild soap and water, rinsed, dried at once.'],
    avoid: [NO_SILICONE, 'No standing water, no hot pans, no scouring powder.'],
    renew:
      'Wash it with strong soap, rinse, let it dry. Rub lightly with P220 or a pad. One thin coat of its own kind, ' +
      'and all that stands on it wiped off. Oily cloths can set themselves on fire: into water, or spread out flat ' +
      'outdoors, before they are thrown away.',
    spot: 'A ring: rub with wool and a little of its oil, along the grain; then the whole top once.',
  },
  wax: {
    clean: [DRY, 'Buff it with a clean cloth.'],
    avoid: [NO_SILICONE, 'No water, no heat, no spirits.'],
    renew: 'A little wax on a cloth, thin, along the grain; wait as its tin says; buff.',
    spot: 'Wax the spot again and buff it. Old dark wax comes off with white spirit, with the window open.',
  },
  melts: {
    clean: [DRY, 'A cloth hardly damp, then dry at once.'],
    avoid: [NO_SILICONE, 'No spirits, no perfume, no hot cups, no standing water: it melts or turns white.'],
    renew: 'It is not renewed at home. We lay a thin coat over it: it melts into the old one.',
    spot: 'A fresh white ring often goes with a hand-warm cloth. Else call us: it can be mended where it is.',
  },
  hard: {
    clean: [DRY, 'A damp cloth with a little washing-up liquid, then clear water, then dry.'],
    avoid: [NO_SILICONE, 'No scouring powder, no steel wool, nothing hot straight from the stove.'],
    renew: 'It is not renewed at home. Worn but not through: we scuff it and lay one coat over all of the face.',
    spot: 'A scratch that does not go through can be polished. Once through, call us before water gets in.',
  },
  paint: {
    clean: [DRY, 'A damp cloth, then dry.'],
    avoid: [NO_SILICONE, 'No scouring powder, no spirits.'],
    renew: 'It is not renewed at home. We scuff it and lay one coat over all of the face.',
    spot: 'A chip is touched in with a fine brush from the pot that we keep, or from yours.',
  },
}
type Use = Facts['use']
type Laid = Pick<Material, 'slug' | 'role' | 'base' | 'meltsIn' | 'handle_min' | 'cure_d' | 'name'>
const THIN_OILS = ['varnish-oil', 'resin-oil-varnish', 'hardwax-oil-2c', 'raw-linseed', 'boiled-linseed']

export function careKind({ slug, role, base, meltsIn }: Laid): CareKind {
  if (role === 'wax') return 'wax'
  if (role === 'oil' || THIN_OILS.includes(slug)) return 'renewed'
  if (slug === 'opaque-colour') return 'paint'
  return meltsIn || base === 'alcohol' ? 'melts' : 'hard'
}

const HARD_USE: readonly Use[] = ['hard', 'outdoors']
/** Years until it wants renewing. Oil: handbook §18; the others shop defaults, unsourced. */
export function renewAfter_y(kind: CareKind, use: Use): number {
  const hard = HARD_USE.includes(use)
  return { renewed: hard ? 1 : 2, wax: 1, melts: hard ? 5 : 10, hard: hard ? 8 : 12, paint: hard ? 6 : 10 }[kind]
}

export interface UseFrom {
  touched_ms: number
  laidOn_ms: number
  washed_ms: number
  hard_ms: number
}
const DAY_MS = 86_400_000
/**
 * When it may be touched, laid upon, washed and used hard, from when the last coat was laid. Touched and hard: by its
 * label or class; washed at the earliest that it may have cured, laid upon at half of that (shop default, unsourced).
 */
export function useFrom({ handle_min, cure_d }: Laid, laid_ms: number): UseFrom {
  const touched_ms = laid_ms + handle_min * 60_000
  return {
    touched_ms,
    laidOn_ms: Math.max(touched_ms, laid_ms + (cure_d[0] / 2) * DAY_MS),
    washed_ms: Math.max(touched_ms, laid_ms + cure_d[0] * DAY_MS),
    hard_ms: Math.max(touched_ms, laid_ms + cure_d[1] * DAY_MS),
  }
}

export interface CareFinish {
  /** of the piece, in words; '': all of it */
  faces: string
  material: Laid
  /** days in words; '': long since */
  from: { touched: string; laidOn: string; washed: string; hard: string } | null
}
/** What was left undone: the owner goes on alone. */
export interface PartDone {
  /** what follows, with its window in words */
  next: readonly string[]
  mustNot: readonly string[]
  /** cautions of the work that follows */
  mind: readonly string[]
}
export interface CareSheet {
  id: number
  shop: string
  client: string
  piece: string
  madeOn: string
  finishes: readonly CareFinish[]
  /** month in words; '': it is not renewed */
  renewIn: string
  partDone: PartDone | null
}
const nameOf = ({ slug, name }: Laid) => everydayOf(slug)?.says ?? name

function finishParts({ faces, material, from }: CareFinish) {
  const care = CARE[careKind(material)]
  const rows: [string, string][] = from
    ? [
        ['Touched', from.touched],
        ['Things laid on it', from.laidOn],
        ['Washed', from.washed],
        ['Used hard', from.hard],
      ]
    : []
  return [
    heading(`${nameOf(material).replace(/^./, c => c.toUpperCase())}${faces ? `: ${faces}` : ''}`),
    ...(rows.length ? [{ kind: 'facts' as const, rows: rows.map(([n, s]) => [n, `from ${s}`] as const) }] : []),
    ...listUnder('To clean it', care.clean),
    ...listUnder('Not on it', care.avoid),
    ...listUnder('When it is worn', [care.renew, care.spot]),
  ]
}
export const carePaper = (c: CareSheet): Paper => ({
  title: `${c.partDone ? 'Part done, and care' : 'Care'}: ${c.piece}`,
  from: [c.shop, c.madeOn],
  foot: `${c.shop} · piece ${c.id}`,
  parts: [
    {
      kind: 'facts',
      rows: [['For', c.client], ...(c.renewIn ? [['To be renewed', `about ${c.renewIn}`] as const] : [])],
    },
    ...(c.partDone
      ? [
          ...listUnder('What must follow', c.partDone.next),
          ...listUnder('What must not be done', c.partDone.mustNot),
          ...listUnder('What may hurt', c.partDone.mind),
        ]
      : []),
    ...c.finishes.flatMap(finishParts),
    {
      kind: 'text',
      tone: 'small',
      text: 'Labels of products outrank this sheet. For children and what is eaten: by the label, once it has cured.',
    },
  ],
})

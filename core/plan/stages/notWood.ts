/** Parts that are no wood: rust off, primed and painted; cleaned; or out while the wood is worked, and back. */
import { P } from '../../abrasives'
import type { Context } from '../../context'
import { type Face, wetOnly } from '../../piece'
import type { Draft } from './bench'

type Put = (order: number, kind: Draft['kind'], why: string, more?: Omit<Draft, 'order' | 'kind' | 'why'>) => void
type Substance = Exclude<Face['substrate'], 'solid' | 'veneer'>

const PAINT_COATS = 2
function iron(put: Put, context: Context) {
  put(96, 'derust', 'paint holds on sound metal only', {
    grits: [P(80), P(120)],
    method: wetOnly(context.facts) ? 'wet' : 'hand',
  })
  put(96.2, 'solvent-wash', 'hands and oil keep primer off', {
    product: 'white-spirit',
    method: 'rag',
    fields: { against: 'grease' },
  })
  const by = { method: 'spray', fields: {} } as const
  put(96.4, 'coat', 'bare iron rusts under paint alone', {
    ...by,
    product: 'metal-primer',
    coat: 1,
    fields: { as: 'sealer' },
  })
  for (let coat = 1; coat <= PAINT_COATS; coat++)
    put(96.5 + coat / 10, 'coat', 'thin mists, five minutes apart at least', {
      ...by,
      product: 'opaque-colour',
      coat,
      fields: { of: PAINT_COATS },
    })
}
function brass(put: Put, { facts }: Context) {
  if (facts.age === 'keep')
    return put(97, 'wash', 'its age is kept: cleaned, not brightened', { product: 'mild-soap', method: 'rag' })
  put(97, 'brighten', 'the client wants it new', { method: 'rag' })
  put(97.4, 'coat', 'bright brass dulls in weeks without it', {
    product: 'nitrocellulose-lacquer',
    method: 'spray',
    coat: 1,
    fields: { as: 'sealer' },
  })
}
const outAndBack = (put: Put) => {
  put(94, 'take-out', 'nothing runs, dusts or soaks into it', { method: 'hand' })
  put(895, 'put-back', 'the film bears it by now', { method: 'hand' })
}
const WORK: Record<Substance, (put: Put, context: Context) => void> = {
  iron,
  brass,
  cane: put => put(98, 'damp-clean', 'no stripper, little water', { method: 'rag' }),
  glass: outAndBack,
  leather: outAndBack,
  upholstery: outAndBack,
}

/** What is done with the parts that are worked and no wood, each on its own faces. */
export function otherDrafts(context: Context): { draft: Draft; faces: number[] }[] {
  const others = context.facts.faces.filter(f => f.scope === 'other')
  return [...new Set(others.map(f => f.substrate))].flatMap(substrate => {
    const faces = others.filter(f => f.substrate === substrate).map(f => f.id)
    const drafts: Draft[] = []
    WORK[substrate as Substance]((order, kind, why, more = {}) => {
      const stem = [substrate, kind, more.coat].filter(Boolean).join('.')
      drafts.push({ order, kind, why, stem, ...more })
    }, context)
    return drafts.map(draft => ({ draft, faces }))
  })
}

/** Marks that are worked where they are, on their faces and no further. */
import { does, type Method } from '../../acts'
import { COLOUR_GONE, FILLED, type FindingKind } from '../../piece'
import { type Bench, facesWith, lightPass, mend, mends, onSpots } from './bench'

/** Before anything is stripped or sanded: staples out, what is loose made fast, veneer pressed down. */
export function makeFast(b: Bench) {
  mend(b, 108, 'pull', 'before any blade or paper: one that is missed tears both')
  onSpots(b, 109, 'solvent-wash', ['tape-residue'], 'glue of old tape comes through every coat', {
    product: 'white-spirit',
    method: 'rag',
    fields: { against: 'tape-residue' },
  })
  mend(b, 112, 'joint', 'what is loose is made fast before anything is stripped or sanded')
  mend(b, 113, 'press', 'loose veneer is caught by blade and paper', { glue: 'hide-glue' })
}

/** On bare wood, before its last grits. */
export function readyWood(b: Bench) {
  mend(b, 182, 'pare', 'wood under glue takes neither colour nor finish')
  mend(b, 183, 'steam', 'fibres that are whole come up again, and are cut flush after')
}

const IRON: readonly FindingKind[] = ['black-ring']
/** Iron in the wood, taken out on the mark alone. Where the patina is kept, so is the mark. */
export function ironOut(b: Bench, at = 204) {
  const whole = b.layers.some(l => l.product === 'oxalic-acid')
  if (facesWith(b, ...IRON).length === 0 || whole || b.facts.keepPatina) return
  const why = 'iron and tannin in the wood: it comes through every coat'
  onSpots(b, at, 'bleach', IRON, why, { product: 'oxalic-acid', method: 'brush' })
  onSpots(b, at + 1, 'rinse', IRON, 'acid that stays in the wood eats the next film', { method: 'rag' })
  lightPass(b, at + 2, 'bleach', 'fibres stand up where it was wet', undefined, IRON)
}

/** Colour on what takes none, or lost it, before the first clear coat. */
export function touchUp(b: Bench, order: number, stem: string) {
  const coloured = b.layers.some(l => does({ kind: l.act }, 'colours'))
  const stays = b.s.films.some(f => f.found)
  const filled = mends(b, 'mend').map(m => m.kind)
  const fills = coloured || stays ? FILLED.filter(k => filled.includes(k)) : []
  const method: Method = 'brush'
  const by = { product: 'dewaxed-shellac', method, stem }
  onSpots(b, order, 'spot-colour', fills, 'a fill never takes colour like the wood around it', by)
  const gone = stays || b.group.substrate === 'veneer' ? COLOUR_GONE : []
  onSpots(b, order + 0.1, 'spot-colour', gone, 'colour first, or the clear coat shows every bare place', {
    ...by,
    stem: `${stem}.gone`,
  })
}

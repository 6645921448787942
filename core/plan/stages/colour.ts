/** Stages of colour. */
import type { LayerUse } from '../../acts'
import { materialOf } from '../../materials'
import { speciesOf } from '../../wood'
import type { Bench } from './bench'

/** A thin sealer: vinyl, or dewaxed shellac where contamination wants its barrier first. */
export function seal(b: Bench, order: number, as: LayerUse, why: string) {
  const product = b.s.contamination === 'washed' ? 'dewaxed-shellac' : 'vinyl-sealer'
  b.put(order, 'coat', why, { product, method: 'spray', coat: 1, fields: { as } })
}
/** Dewaxed shellac, brushed, for what it keeps apart. */
export const shellac = (b: Bench, order: number, as: LayerUse, why: string) =>
  b.put(order, 'coat', why, { product: 'dewaxed-shellac', method: 'brush', coat: 1, fields: { as } })

function stain(b: Bench) {
  const { choice, group, house } = b
  const blotches = speciesOf(group.species).blotches
  const wantsIt = house.conditioner === 'always' || (house.conditioner === 'where-blotchy' && blotches)
  const chosen = choice.conditioner === 'none' ? null : choice.conditioner
  const auto = wantsIt ? 'oil-conditioner' : null
  const product = chosen === 'auto' ? auto : chosen
  const why = `${speciesOf(group.species).name} takes stain in patches`
  if (product) b.put(300, 'conditioner', why, { product, method: 'rag', coat: 1 })
  b.put(310, 'stain', "the client's colour", { product: 'pigment-stain', method: 'rag', coat: 1 })
}

function glaze(b: Bench) {
  shellac(b, 450, 'under-glaze', 'the glaze is wiped on a sealed surface, and stays in the recesses')
  b.put(460, 'glaze', 'darker in the recesses, as age makes it', { product: 'glaze', method: 'rag', coat: 1 })
  if (materialOf(b.choice.finish).base !== 'alcohol')
    shellac(b, 465, 'over-glaze', 'holds the oil glaze away from the next film')
}

function tone(b: Bench) {
  seal(b, 450, 'under-toner', 'colour lies in the film, not in the wood')
  const of = materialOf('lacquer-toner').coats[0]
  for (let coat = 1; coat <= of; coat++)
    b.put(460 + coat, 'toner', 'three to five light coats, from a distance', {
      product: 'lacquer-toner',
      method: 'spray',
      coat,
      fields: { of },
    })
}

export function colour(b: Bench) {
  const product = b.choice.colour
  // a glaze lies between coats and a toner in a film; routes say so where the finish is none
  const film = materialOf(b.choice.finish).role === 'film'
  switch (product) {
    case 'pigment-stain':
      return stain(b)
    case 'gel-stain':
      return b.put(310, 'gel', 'hides scratches and goes darker', { product, method: 'rag', coat: 1 })
    case 'water-dye':
    case 'alcohol-dye': {
      const of = materialOf(product).coats[0]
      for (let coat = 1; coat <= of; coat++)
        b.put(310 + coat, 'dye', 'weak and many: saturating makes colours separate', {
          product,
          method: 'spray',
          coat,
          fields: { of },
        })
      return
    }
    case 'ammonia':
      return b.put(310, 'dye', "darkens the wood's own tannin", { product, method: 'brush', coat: 1 })
    case 'paint-wash':
      return b.put(310, 'paint-wash', 'paler, cooler, kills orange', { product, method: 'rag', coat: 1 })
    case 'glaze':
      return film ? glaze(b) : undefined
    case 'lacquer-toner':
      return film ? tone(b) : undefined
  }
}

/** The colour card of a piece. */
import { screenOf, viewingOf } from '#core/colour'
import { coloursPaper, type PaperSize } from '#core/papers'
import { saidSlug } from '#core/units'
import { speciesOf } from '#core/wood'
import { db } from '../../database/db'
import { LIGHT_SAYS } from '../client/compose'
import { type BandRow, readBands } from '../colour/bandRows'
import { readColourants } from '../colour/colourants'
import { readPiece } from '../piece/read'
import { readShop } from '../shop/rows'
import { dayIn } from '../shop/words'
import { paperFile } from './paper'

const laidOf = (b: BandRow): string[] => [
  ...(b.coats > 0 ? [`${b.coats} ${b.coats === 1 ? 'coat' : 'coats'}, by ${saidSlug(b.applicator)}`] : []),
  ...(b.grit ? [`on wood sanded to ${b.scale === 'P' ? 'P' : ''}${b.grit}${b.scale === 'P' ? '' : ' CAMI'}`] : []),
  ...(b.clear_coat ? [`under ${saidSlug(b.clear_coat)}`] : []),
  ...(b.note ? [b.note] : []),
]

export async function coloursFile(id: number, size: PaperSize | undefined, at: Date) {
  const { piece, faces } = await readPiece(db(), id)
  const [bands, colourants, shop] = [await readBands(db(), id), await readColourants(db()), await readShop()]
  if (bands.length === 0)
    throw fail(409, 'nothing', 'This piece has no bands yet. Add them under Colour, Panel; then there is a card.')
  const names = new Map(colourants.map(c => [c.product_id, c.name]))
  const day = dayIn(shop)
  const paper = coloursPaper({
    ...{ id, shop: shop.name, client: piece.client_name, piece: piece.name, madeOn: day(at) },
    wood: [...new Set(faces.map(f => speciesOf(f.species).name))].join(', '),
    bands: bands.map(b => ({
      title: b.title,
      colour: b.spectrum && screenOf(b.spectrum, viewingOf('d65')).hex,
      recipe: (b.shares ?? []).map(s => ({ name: names.get(s.id) ?? 'a colour no longer kept', percent: s.pct })),
      laid: laidOf(b),
      light: b.judged_light ? LIGHT_SAYS[b.judged_light] : '',
      approved: b.approved_at && [b.approved_by, day(b.approved_at)].filter(Boolean).join(', '),
    })),
  })
  return { name: `colours-${id}.pdf`, data: await paperFile(paper, size, shop) }
}

/** The delivery note of a piece. */
import { deliveryPaper, type PaperSize } from '#core/papers'
import { saidSlug } from '#core/units'
import { db } from '../../database/db'
import { awayOf, curesUntil_ms, readHandOver } from '../piece/handOver'
import { readPiece } from '../piece/read'
import { readPlan } from '../plan/rows'
import { readShop } from '../shop/rows'
import { dayIn } from '../shop/words'
import { paperFile } from './paper'

export async function deliveryFile(id: number, size: PaperSize | undefined, at: Date) {
  const file = await readPiece(db(), id)
  const { piece, items } = file
  const [shop, cures] = [await readShop(), curesUntil_ms(file, await readPlan(db(), file), at)]
  const given = await readHandOver(db(), id)
  const day = dayIn(shop)
  const paper = deliveryPaper({
    ...{ id, shop: shop.name, client: piece.client_name, piece: piece.name },
    madeOn: day(piece.handed_over_at ?? at),
    along: items
      .filter(i => i.kind !== 'mark' && i.state !== 'missing')
      .map(i => ({
        ...{ name: `${i.mark} ${i.name}`, count: i.count },
        says: [i.state === 'present' ? '' : saidSlug(i.state), i.place ? `in ${i.place}` : '']
          .filter(Boolean)
          .join(', '),
      })),
    given: given && {
      to: given.to_name,
      on: day(given.at),
      signature: given.signature ?? '',
      part: Boolean(given.part),
    },
    mind: [
      ...awayOf(file).map(i => `Not back yet: ${i.mark} ${i.name}`),
      ...(given?.part
        ? ['Part done: what must follow, and what must not be done before, stands on its care sheet.']
        : []),
      ...(cures === null || given?.part
        ? []
        : [`The finish cures until ${day(new Date(cures))}. Use it gently until then.`]),
    ],
  })
  return { name: `delivery-${id}.pdf`, data: await paperFile(paper, size, shop) }
}

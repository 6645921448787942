/** Labels of pieces, parts, bags and pots, each with a code of its page. */
import { DateTime } from 'luxon'
import type { z } from 'zod'
import { cautionsIn, cautionsOfAll } from '#core/materials'
import { type Label, stockOf } from '#core/papers'
import type * as s from '#shared/schemas'
import { db } from '../../database/db'
import { batchPage } from '../colour/pots'
import { placePage } from '../piece/items'
import { finishesLaid, renewOn } from '../piece/handOver'
import { readPiece } from '../piece/read'
import type { PieceFile } from '../piece/rows'
import { readPlan } from '../plan/rows'
import { readShop, type ShopRow } from '../shop/rows'
import { lotPage } from '../store/lots'
import { shortDayIn } from '../shop/words'
import { pageOf, readFonts, sizeOf } from './paper'

type Asked = z.output<typeof s.labelQuery>
async function labelFile(name: string, labels: Label[], own: 'place' | 'pot', { stock, size, from }: Asked) {
  const shop = await readShop()
  const data = await inWorker('labelsPdf', {
    ...{ fonts: await readFonts(), labels, from, title: labels.map(l => l.head).join(', ') },
    stock: stockOf(stock, own, sizeOf(size, shop)),
  })
  return { name, data }
}

/** A place's label says what is in it; the mark of each part, and of which piece. */
export async function placeLabel(code: string, asked: Asked) {
  const [place, shop] = [await placePage(code), await readShop()]
  const label: Label = {
    head: place.code,
    lines: [
      { text: place.kind },
      ...place.items.map(i => ({ text: `${i.piece_id}-${i.mark} ${i.name}` })),
      { text: shop.name },
    ],
    ...{ address: pageOf(`/places/${place.code}`), says: `Opens place ${place.code}` },
  }
  return labelFile(`place-${place.code}.pdf`, [label], 'place', asked)
}

const pieceLabelOf = ({ piece, facts }: PieceFile, shop: ShopRow): Label => ({
  head: String(piece.id),
  lines: [
    { text: piece.name, strong: true },
    { text: piece.client_name },
    ...(piece.due_on ? [{ text: `Promised ${shortDayIn(shop)(piece.due_on)}` }] : []),
    ...(facts.marks.length ? [{ text: `Keep: ${facts.marks.join(', ')}`, strong: true }] : []),
    { text: shop.name },
  ],
  ...{ address: pageOf(`/pieces/${piece.id}/plan`), says: `Opens piece ${piece.id}` },
})
/** For a hidden side of the piece: what was done when, with what, and when it wants renewing. */
async function hiddenLabel(file: PieceFile, shop: ShopRow, at: Date): Promise<Label> {
  const { piece } = file
  const plan = await readPlan(db(), file)
  const laid = finishesLaid(file, plan)
  if (laid.length === 0) throw fail(409, 'nothing', 'No finish was laid on it yet; then there is a label.')
  const renew = piece.renew_on ?? renewOn(file, plan, piece.handed_over_at ?? at)
  const month = renew && DateTime.fromISO(renew).setLocale('en-GB').toFormat('LLLL yyyy')
  return {
    head: shop.name,
    lines: [
      ...laid.map(f => ({ text: f.material.name, strong: true })),
      { text: `Done ${shortDayIn(shop)(new Date(Math.max(...laid.map(f => f.laid_ms))))}`, strong: true },
      ...(month ? [{ text: `Renew about ${month}`, strong: true }] : []),
      { text: 'No silicone polish' },
      { text: `Piece ${piece.id}` },
    ],
    ...{ address: pageOf(`/pieces/${piece.id}`), says: `Opens piece ${piece.id}` },
  }
}
/** The piece itself, its hidden side, or one label for each part and each bag of hardware. */
export async function pieceLabels(id: number, asked: z.output<typeof s.pieceLabelQuery>, at: Date) {
  const [file, shop] = [await readPiece(db(), id), await readShop()]
  if (asked.of === 'hidden') return labelFile(`hidden-${id}.pdf`, [await hiddenLabel(file, shop, at)], 'place', asked)
  if (asked.of === 'piece') return labelFile(`piece-${id}.pdf`, [pieceLabelOf(file, shop)], 'place', asked)
  const labels = file.items
    .filter(i => i.kind !== 'mark')
    .map((i): Label => ({
      head: `${id}-${i.mark}`,
      lines: [
        { text: `${i.count > 1 ? `${i.count} × ` : ''}${i.name}`, strong: true },
        { text: `${file.piece.name}, ${file.piece.client_name}` },
        ...(i.set_name ? [{ text: `Set: ${i.set_name}` }] : []),
        ...(i.place ? [{ text: `Lies in ${i.place}` }] : []),
        { text: shop.name },
      ],
      ...{ address: pageOf(`/pieces/${id}/parts`), says: `Opens the parts of piece ${id}` },
    }))
  if (labels.length === 0)
    throw fail(409, 'nothing', 'This piece has no parts yet. Add them under Examine, Parts; then there are labels.')
  return labelFile(`parts-${id}.pdf`, labels, 'place', asked)
}

/** A can: what it is, until when it is good, where it stands; its code opens what is done with it. */
export async function lotLabel(id: number, asked: Asked, at: Date) {
  const [{ lot }, shop] = [await lotPage(id, at), await readShop()]
  const day = shortDayIn(shop)
  const hazardous = cautionsIn(lot.class).length > 0
  const label: Label = {
    head: lot.code,
    lines: [
      { text: [lot.name, lot.grit].filter(Boolean).join(', '), strong: true },
      ...(lot.until ? [{ text: `Good until ${day(lot.until)}`, strong: true }] : []),
      ...(hazardous ? [{ text: 'Hazardous: see its data sheet', strong: true }] : []),
      { text: `Received ${day(lot.received_on)}` },
      { text: lot.opened_on ? `Opened ${day(lot.opened_on)}` : 'Opened:' },
      ...(lot.kept_for ? [{ text: `Kept for piece ${lot.kept_for}` }] : []),
      ...(lot.place ? [{ text: `Stands at ${lot.place}` }] : []),
      { text: shop.name },
    ],
    ...{ address: pageOf(`/lots/${id}`), says: `Opens can ${lot.code}` },
  }
  return labelFile(`can-${id}.pdf`, [label], 'pot', asked)
}

/**
 * What is in a pot, for which piece, when mixed, until when it may be used and kept. Cautions stand before what it
 * holds, so that no stock is too small for them.
 */
export async function potLabel(id: number, asked: Asked) {
  const [pot, shop] = [await batchPage(id), await readShop()]
  const clock = (at: Date | number) =>
    DateTime.fromMillis(Number(at)).setZone(shop.zone).setLocale('en-GB').toFormat('d LLL yyyy HH:mm')
  const shares = pot.contents.some(c => c.g > 0) ? pot.contents : pot.lines.map(l => ({ name: l.name, g: l.wanted_g }))
  const total = shares.reduce((sum, x) => sum + x.g, 0)
  const keep = pot.piece ? 'Keep until handed over' : ''
  const useBy = pot.potEnds_ms ? `Use by ${clock(pot.potEnds_ms)}` : keep
  const label: Label = {
    head: `Pot ${id}`,
    lines: [
      { text: pot.name, strong: true },
      ...(useBy ? [{ text: useBy, strong: true }] : []),
      ...(cautionsOfAll(pot.lines.flatMap(l => l.class ?? [])).length > 0
        ? [{ text: 'Hazardous: see its data sheet', strong: true }]
        : []),
      { text: pot.mixed_at ? `Mixed ${clock(pot.mixed_at.getTime())}` : 'Not mixed yet' },
      { text: `${pot.piece ? `For: ${pot.piece}` : 'For the shop'}${pot.client ? `, ${pot.client}` : ''}` },
      ...shares.map(x => ({
        text: `${x.g.toFixed(1)} g ${x.name} ${total > 0 ? ((100 * x.g) / total).toFixed(1) : '0.0'} %`,
      })),
      { text: shop.name },
    ],
    ...{ address: pageOf(`/mixing/${id}`), says: `Opens pot ${id}` },
  }
  return labelFile(`pot-${id}.pdf`, [label], 'pot', asked)
}

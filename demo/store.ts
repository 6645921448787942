/** The demo shop's store: products by supplier and size, consumables, cans in every state, and the care for air. */
import { materialOf } from '../core/materials'
import { ago, at, open, people, today } from './clock'
import { PRODUCTS } from './shop'
import { lots } from './work'

const PAINTS = 'Kajens Färg'
const ABRASIVES = 'Slip & Verktyg'
/** name, class, grit, price for one, comes in, kept at least, held */
const HELD = [
  ['Discs 150 mm, P120', 'abrasive-disc', 'P120', 600, [50], 25, 40],
  ['Discs 150 mm, P150', 'abrasive-disc', 'P150', 600, [50], 25, 15],
  ['Discs 150 mm, P180', 'abrasive-disc', 'P180', 600, [50], 25, 60],
  ['Discs 150 mm, P220', 'abrasive-disc', 'P220', 600, [50], 25, 30],
  ['Sheets, P80', 'abrasive-sheet', 'P80', 450, [50], 10, 12],
  ['Sheets, P120', 'abrasive-sheet', 'P120', 450, [50], 20, 34],
  ['Sheets, P150', 'abrasive-sheet', 'P150', 450, [50], 20, 26],
  ['Sheets, P180', 'abrasive-sheet', 'P180', 450, [50], 20, 41],
  ['Sheets, P220', 'abrasive-sheet', 'P220', 450, [50], 20, 45],
  ['Sheets, P320', 'abrasive-sheet', 'P320', 450, [50], 20, 8],
  ['Sheets, P400', 'abrasive-sheet', 'P400', 450, [50], 20, 30],
  ['Sheets, P600', 'abrasive-sheet', 'P600', 500, [50], 10, 20],
  ['Steel wool, 0000', 'fine-abrasive', 'wool 0000', 120, [20], 5, 16],
  ['Non-woven pads, fine', 'non-woven-pad', '', 900, [20], 5, 14],
  ['Tack cloths', 'tack-cloth', '', 1200, [10], 5, 12],
  ['Rags, white cotton', 'rag', '', 150, [200], 50, 180],
  ['Masking tape, 25 mm', 'masking-tape', '', 90, [50], 50, 120],
  ['Masking paper, 300 mm', 'masking-paper', '', 60, [50], 20, 90],
  ['Paint filters, 190 µm', 'paint-filter', '', 250, [100], 20, 70],
  ['Gloves, nitrile', 'gloves', '', 220, [50], 20, 75],
  ['Cartridges, organic vapour', 'cartridge', '', 24_000, [1], 2, 3],
] as const
/** What else stands on the shelves: name, class, code, ml held. */
const ALSO = [
  ['Two-part hardwax oil', 'hardwax-oil-2c', 'H-3', 900],
  ['Primer for metal, grey', 'metal-primer', 'M-1', 450],
  ['Sanding sealer for lacquer', 'lacquer-sanding-sealer', 'L-9', 900],
  ['Oil polyurethane, satin', 'oil-polyurethane', 'U-14', 2100],
  ['Vinyl sealer', 'vinyl-sealer', 'V-6', 800],
  ['Linseed oil, raw', 'raw-linseed', 'R-2', 700],
  ['Wiping varnish', 'wiping-varnish', 'W-5', 600],
  ['Surfacer, white', 'primer-surfacer', 'F-4', 2500],
  ['Two-part urethane, clear', 'urethane-2c', 'X-8', 500],
  ['Shellac for brushing', 'shellac-brushed', 'B-7', 750],
  ['Oxalic acid solution', 'oxalic-acid', 'A-2', 500],
  ['Glazing putty', 'glazing-putty', 'K-1', 400],
  ['Water stain, smoke', 'water-stain', 'T-20', 300],
  ['Paste wax, dark', 'paste-wax', 'Y-3', 480],
] as const
const post = <T = { id: number }>(path: string, body: object) => people.tove.send<T>('POST', path, body)

export async function stock(): Promise<void> {
  for (const [name, slug, priceMinor, held] of PRODUCTS) {
    const { id: productId } = await post('/api/products', {
      ...{ name, class: slug, priceMinor, supplier: PAINTS, containers: [250, 1000, 5000] },
    })
    for (const [code, amount] of held) {
      const { id } = await post('/api/lots', { productId, code, amount, place: 'SHELF-1' })
      if (!lots.has(slug)) lots.set(slug, id)
    }
  }
  for (const [name, slug, code, amount] of ALSO) {
    const { id: productId } = await post('/api/products', {
      ...{ name, class: slug, priceMinor: materialOf(slug).price_minor, supplier: PAINTS, containers: [250, 1000] },
    })
    await post('/api/lots', { productId, code, amount, place: 'SHELF-3' })
  }
  for (const [name, slug, grit, priceMinor, containers, least, amount] of HELD) {
    const { id: productId } = await post('/api/products', {
      ...{ name, class: slug, grit, priceMinor, supplier: ABRASIVES, containers, least },
    })
    await post('/api/lots', { productId, code: grit || 'Box 1', amount, place: 'SHELF-2' })
  }
}

async function doWith(lot: number, act: object) {
  const { lot: now } = await people.emil.get<{ lot: { row_version: number } }>(`/api/lots/${lot}`)
  await people.emil.send('POST', `/api/lots/${lot}/acts`, { rowVersion: now.row_version, act })
}
/** A can over its time, one thrown away, one that its maker called back, one spilt, sheets taken for a piece. */
export async function lastOfTheStore(pieceOf: (name: string) => number): Promise<void> {
  const { products } = await people.tove.get<{ products: { id: number; class: string; lots: { id: number }[] }[] }>(
    '/api/store',
  )
  const of = (slug: string) => products.find(p => p.class === slug)!
  await at(ago(400, '09:00'))
  const old = await post('/api/lots', {
    productId: of('oil-conditioner').id,
    code: 'C-1',
    amount: 600,
    place: 'SHELF-1',
  })
  const skinned = await post('/api/lots', {
    productId: of('varnish-oil').id,
    code: 'O-11',
    amount: 250,
    place: 'SHELF-1',
  })
  await at(ago(320, '09:00'))
  await doWith(old.id, { kind: 'open' })
  const sour = await post('/api/lots', { productId: of('oil-conditioner').id, code: 'C-0', amount: 500 })
  await at(ago(15, '10:30'))
  for (const name of ['Hat stand', 'Sea chest'])
    await doWith(sour.id, { kind: 'take', amount: 40, pieceId: pieceOf(name), word: 'a try on the back' })
  await at(ago(4, '08:20'))
  await doWith(sour.id, { kind: 'throw', word: 'called back by its maker' })
  await at(ago(20, '16:10'))
  await doWith(skinned.id, { kind: 'throw', word: 'a skin through and through' })
  await at(ago(6, '11:20'))
  await doWith(of('white-spirit').lots[0]!.id, { kind: 'spill', amount: 400, word: 'knocked over beside the sink' })
  await doWith(of('varnish-oil').lots[0]!.id, { kind: 'skin' })
  await at(today('10:24'))
  await doWith(of('abrasive-sheet').lots[0]!.id, {
    kind: 'take',
    amount: 6,
    pieceId: pieceOf('Map chest, eight drawers'),
    word: '',
  })
  await at(open.toMillis())
}
/** Cartridges that are worn, a year's VOC that is set, waste that was handed in. */
export async function careOfTheShop(): Promise<void> {
  const { ingrid, emil, tove } = people
  const fit = async (who: typeof emil) => {
    const { person } = await who.get<{ person: { id: number } }>('/api/session')
    await who.send('POST', '/api/breath/cartridges', { personId: person.id, lasts_h: 8, lasts_d: 30 })
  }
  await at(ago(24, '08:10'))
  await fit(emil)
  await at(ago(9, '08:10'))
  await fit(tove)
  await at(ago(18, '15:40'))
  await tove.send('POST', '/api/breath/waste', {
    ...{ takenTo: 'Harbour collection point', receipt: 'HC-2291', litres: 12, word: 'stripper sludge, rinsing spirit' },
  })
  await at(open.toMillis())
  await ingrid.send('PUT', '/api/breath/voc', { kg: 120 })
}

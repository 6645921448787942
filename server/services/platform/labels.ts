import { DateTime } from 'luxon'
import { cautionsOfAll } from '#core/materials'
import { db } from '../../database/db'
import type { Fonts } from '../../workers/pdf'
import { batchPage } from '../colour/pots'
import { placePage } from '../piece/items'
import { readShop } from '../shop/rows'

let fonts: Promise<Fonts> | undefined
/** The house's fonts, read once. */
export const readFonts = (): Promise<Fonts> =>
  (fonts ??= (async () => {
    const read = async (subset: 'latin' | 'latin-ext', weight: 400 | 700) =>
      new Uint8Array(
        (await useStorage('assets:fonts').getItemRaw<Uint8Array>(`schibsted-grotesk-${subset}-${weight}-normal.woff`))!,
      )
    return {
      ...{ regular: await read('latin', 400), bold: await read('latin', 700) },
      ...{ regularExtended: await read('latin-ext', 400), boldExtended: await read('latin-ext', 700) },
    }
  })())

/** Scanned in the shop: its own address there, where it has one. */
const pageOf = (path: string) => `${lanAddresses()[0] ?? useRuntimeConfig().publicBase}${path}`

export async function placeLabel(code: string): Promise<Uint8Array> {
  const place = await placePage(code)
  const shop = await db().row<{ name: string }>('SELECT name FROM shop WHERE id = 1')
  return inWorker('placeLabelPdf', {
    fonts: await readFonts(),
    address: pageOf(`/places/${place.code}`),
    code: place.code,
    kind: place.kind,
    shop: shop?.name ?? '',
  })
}

export async function potLabel(id: number): Promise<Uint8Array> {
  const pot = await batchPage(id)
  const shop = await readShop(db())
  const clock = (at: Date | number) =>
    DateTime.fromMillis(Number(at)).setZone(shop.zone).setLocale('en-GB').toFormat('d LLL yyyy HH:mm')
  const shares = pot.contents.some(c => c.g > 0) ? pot.contents : pot.lines.map(l => ({ name: l.name, g: l.wanted_g }))
  const keep = pot.piece ? 'Keep until the piece has been handed over' : ''
  return inWorker('potLabelPdf', {
    fonts: await readFonts(),
    address: pageOf(`/mixing/${id}`),
    id,
    name: pot.name,
    shares: shares.map(s => ({ name: s.name, g: s.g })),
    shop: shop.name,
    forWhom: `${pot.piece ? `For: ${pot.piece}` : 'For the shop'}${pot.client ? `, ${pot.client}` : ''}`,
    mixed: pot.mixed_at ? `Mixed ${clock(pot.mixed_at.getTime())}` : 'Not mixed yet',
    useBy: pot.potEnds_ms ? `Use by ${clock(pot.potEnds_ms)}` : keep,
    hazardous: cautionsOfAll(pot.lines.flatMap(l => l.class ?? [])).length > 0,
  })
}

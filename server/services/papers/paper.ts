/** What all papers of a piece share: fonts, sizes, the surface in words and as a cut. */
import { everyday } from '#core/build'
import type { Paper, PaperSize } from '#core/papers'
import { labelledCut } from '#core/section'
import type { Fonts } from '../../workers/pdf'
import { atHomeOf } from '../client/figures'
import type { PieceFile } from '../piece/rows'
import { sectionFor, verdictsOf } from '../plan/judge'
import type { StoredPlan } from '../plan/rows'
import type { ShopRow } from '../shop/rows'

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
/** The size that is asked for, else the usual of the shop's units. */
export const sizeOf = (size: PaperSize | undefined, { length_unit }: Pick<ShopRow, 'length_unit'>): PaperSize =>
  size ?? (length_unit === 'in' ? 'LETTER' : 'A4')
export const paperFile = async (paper: Paper, size: PaperSize | undefined, shop: Pick<ShopRow, 'length_unit'>) =>
  inWorker('paperPdf', { fonts: await readFonts(), paper, size: sizeOf(size, shop) })

/** Scanned in the shop: its own address there, where it has one. */
export const pageOf = (path: string) => `${lanAddresses()[0] ?? useRuntimeConfig().publicBase}${path}`

const timeSaid = (min: number) => {
  if (min < 120) return `${Math.round(min)} min`
  return min < 2880 ? `${Math.round(min / 60)} h` : `${Math.round(min / 1440)} days`
}
/** How soon and how late a step may follow the one before it; '': whenever. */
export function waitSaid({ waits }: Pick<StoredPlan, 'waits'>, key: string): string {
  const before = waits.filter(x => x.to === key)
  const least = Math.max(0, ...before.map(x => x.min))
  const most = Math.min(Infinity, ...before.map(x => x.max ?? Infinity))
  const says = [least > 0 && `not before ${timeSaid(least)}`, most < Infinity && `not after ${timeSaid(most)}`]
  return says.filter(Boolean).join(', ')
}

/** The layers of a piece from the wood upward, in everyday words. */
export const surfaceOf = ({ choice, context }: Pick<PieceFile, 'choice' | 'context'>) =>
  (choice?.buildUps ?? []).flatMap(b => b.layers.flatMap(l => everyday(l, context) ?? []))

const SECTION_PT = 170
/** The cut as it will be, to stand on a paper; null: nothing is planned. */
export function sectionPart(file: PieceFile, plan: StoredPlan, at: Date) {
  const section = file.choice && sectionFor(file.context, plan, verdictsOf(file, plan, at))
  return section ? { kind: 'drawing' as const, tallest: SECTION_PT, ...labelledCut(section, atHomeOf(file)) } : null
}

/** Products of the store from a table: the one that is taken out as a list, or a supplier's. */
import { type Column, numberIn, readLines, type TableRead } from '../formats'
import { MATERIALS } from '../materials'
import { CONSUMABLE_SLUGS, CONSUMABLES, nameOfClass } from './consumables'

export interface ProductLine {
  line: number
  name: string
  class: string
  grit: string
  supplier: string
  /** null: not said */
  price: number | null
  sizes: number[] | null
  least: number | null
}
type Key = 'name' | 'class' | 'grit' | 'supplier' | 'price' | 'sizes' | 'least'
const COLUMNS: readonly Column<Key>[] = [
  { key: 'name', heads: ['name', 'product'], needed: true },
  { key: 'class', heads: ['class', 'kind'], needed: true },
  { key: 'grit', heads: ['grit'] },
  { key: 'supplier', heads: ['supplier'] },
  { key: 'price', heads: ['price'] },
  { key: 'sizes', heads: ['sizes', 'containers'] },
  { key: 'least', heads: ['kept at least', 'least'] },
]
const CLASSES = [...MATERIALS.map(m => m.slug), ...CONSUMABLE_SLUGS]
/** By its slug, or by the name that a shelf has. */
function classIn(cell: string): string {
  const said = cell.toLowerCase()
  const found = CLASSES.find(slug => slug === said || nameOfClass(slug).toLowerCase() === said)
  if (!found) throw new RangeError(`"${cell.slice(0, 40)}" is no class of product`)
  return found
}
const [MOST_NAME, MOST_AMOUNT] = [120, 1_000_000]
function bounded(n: number | null, what: string): number | null {
  if (n !== null && (n < 0 || n > MOST_AMOUNT)) throw new RangeError(`${what} is below nought or too large`)
  return n
}
function lineOf(line: number, cells: Record<Key, string>): ProductLine {
  if (cells.name === '') throw new RangeError('there is no name')
  if (cells.name.length > MOST_NAME || cells.supplier.length > MOST_NAME) throw new RangeError('a text is too long')
  const slug = classIn(cells.class)
  const graded = CONSUMABLES[slug as keyof typeof CONSUMABLES]?.graded ?? false
  if (cells.grit !== '' && !graded) throw new RangeError('only abrasives have a grit')
  if (cells.grit.length > 12) throw new RangeError('this grit is too long')
  const sizes = cells.sizes
    .split(/[,;/]/)
    .map(t => t.trim())
    .filter(Boolean)
  return {
    ...{ line, name: cells.name, class: slug, grit: cells.grit, supplier: cells.supplier },
    price: bounded(numberIn(cells.price), 'the price'),
    sizes:
      cells.sizes === ''
        ? null
        : sizes
            .map(t => bounded(numberIn(t), 'a size') ?? 0)
            .filter(n => n > 0)
            .slice(0, 8),
    least: bounded(numberIn(cells.least), 'what is kept'),
  }
}
/** @throws RangeError where it is no such table at all. */
export const readProducts = (text: string): TableRead<ProductLine> =>
  readLines(text, COLUMNS, lineOf, l => `"${l.name}"`)

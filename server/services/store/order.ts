/** The list of what to buy, by supplier: as a table, as a paper, as the text of a mail. */
import { writeTable } from '#core/formats'
import { orderPaper, type PaperSize } from '#core/papers'
import { paperFile } from '../papers/paper'
import { readShop } from '../shop/rows'
import { shortDayIn } from '../shop/words'
import { type Bought, containersSaid, needsPage } from './needs'

const nameOf = ({ name, grit }: Bought) => (grit && !name.includes(grit) ? `${name}, ${grit}` : name)
const forSaid = ({ pieces }: Bought) => (pieces.length ? `piece ${pieces.join(', ')}` : 'the house')

async function lines(supplier: string, at: Date) {
  const { buy } = await needsPage(at)
  return buy.filter(b => supplier === '' || b.supplier === supplier)
}
export async function orderCsv(supplier: string, at: Date): Promise<string> {
  const head = ['supplier', 'product', 'grit', 'wanted', 'unit', 'containers', 'total', 'wanted by', 'for', 'price']
  const two = (n: number) => Number(n.toFixed(2))
  const rows = (await lines(supplier, at)).map(b => [
    ...[b.supplier, b.name, b.grit, two(b.amount), b.unit, containersSaid(b), two(b.total)],
    ...[b.on, forSaid(b), two(b.price_minor / 100)],
  ])
  return writeTable(head, rows)
}
export async function orderFile(supplier: string, size: PaperSize | undefined, at: Date) {
  const [its, shop] = [await lines(supplier, at), await readShop()]
  const day = shortDayIn(shop)
  const paper = orderPaper({
    ...{ shop: shop.name, supplier, madeOn: day(at) },
    lines: its.map(b => ({ name: nameOf(b), containers: containersSaid(b), by: day(b.on), why: forSaid(b) })),
  })
  return { name: 'order.pdf', data: await paperFile(paper, size, shop) }
}

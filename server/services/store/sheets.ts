/** Safety data sheets of products, as PDF files. */
import { db, transaction } from '../../database/db'
import { logShop, tell } from '../platform/log'
import type { Person } from '../shop/person'

export const MOST_SHEET_BYTES = 8_000_000

export const addSheet = (productId: number, data: Buffer, person: Person, at: Date) =>
  transaction(async tx => {
    const product = await tx.row<{ name: string }>('SELECT name FROM product WHERE id = :productId', { productId })
    if (!product) throw notFound('product')
    if (data.subarray(0, 5).toString('latin1') !== '%PDF-')
      throw fail(422, 'invalid', 'This is no PDF file. Take the data sheet as its maker gives it.')
    const { id } = await tx.run(
      'INSERT INTO product_sheet (product_id, data, person_id, at) VALUES (:productId, :data, :by, :at)',
      { productId, data, by: person.id, at },
    )
    await logShop(tx, 'store', `Data sheet of ${product.name} kept`, at, person.id)
    await tell(tx, 'store', null, at)
    return { id }
  })

/** The newest of a product. @throws Fail 404. */
export async function sheetOf(productId: number): Promise<{ name: string; data: Buffer }> {
  const sheet = await db().row<{ data: Buffer }>(
    'SELECT data FROM product_sheet WHERE product_id = :productId ORDER BY id DESC LIMIT 1',
    { productId },
  )
  if (!sheet) throw notFound('data sheet')
  return { name: `data-sheet-${productId}.pdf`, data: sheet.data }
}
/** Since when a product's newest is here, by product. */
export const readSheets = async (): Promise<Map<number, Date>> =>
  new Map(
    (
      await db().rows<{ product_id: number; at: Date }>(
        'SELECT product_id, MAX(at) AS at FROM product_sheet GROUP BY product_id',
      )
    ).map(s => [s.product_id, s.at]),
  )

/** What the shop has learnt of how long its products dry, from looks at what dried and from what was begun. */
import { type DryLooks, learnDrying, type Spread } from '#core/drying'
import { materialOf, MATERIALS } from '#core/materials'
import { type Db, transaction } from '../../database/db'
import { logShop, tell } from '../platform/log'
import type { Person } from '../shop/person'

interface LookRow {
  step_id: number
  product: string
  product_id: number | null
  expected_min: number
  not_dry: number | null
  dry_by: number | null
}
export interface Learnt {
  /** of a product of the store, or of its class where nobody looked at the product */
  of: (asked: { class: string; productId: number | null }) => Spread
  /** classes of which something is known by looks at any of their base */
  classes: readonly string[]
}

/** Older looks say nothing of today's tins. */
const YEARS = 3
const readLooks = (on: Db): Promise<LookRow[]> =>
  on.rows<LookRow>(
    `SELECT l.step_id, l.product, label.product_id, AVG(l.expected_min) AS expected_min,
        MAX(CASE WHEN NOT l.dry THEN l.elapsed_min END) AS not_dry,
        MIN(CASE WHEN l.dry THEN l.elapsed_min END) AS dry_by
        FROM dry_look l
        LEFT JOIN product_label label ON label.id = l.label_id
        WHERE l.expected_min IS NOT NULL AND l.product IS NOT NULL
          AND l.at > (SELECT MAX(at) FROM dry_look) - INTERVAL ${YEARS} YEAR
          AND NOT EXISTS (
            SELECT 1
              FROM drying_reset r
              WHERE r.at >= l.at AND r.class = l.product
                AND (r.product_id IS NULL OR r.product_id = label.product_id)
          )
        GROUP BY l.step_id, l.before_id, l.product, label.product_id`,
  )

const nameOf = (id: number | null): string | null => (id === null ? null : `${id}`)
const looksOf = (rows: readonly LookRow[]): DryLooks[] =>
  rows.flatMap(r => {
    if (!MATERIALS.some(m => m.slug === r.product)) return []
    const { base } = materialOf(r.product)
    const shown = { notDry_min: r.not_dry, dry_min: r.dry_by }
    return [{ base, of: r.product, product: nameOf(r.product_id), expected_min: r.expected_min, ...shown }]
  })

let known: { mark: string; learnt: Learnt | null } | undefined
/** Null where nobody has looked at anything yet. Kept until somebody looks again. */
export async function readLearnt(on: Db): Promise<Learnt | null> {
  const [looks, resets] = await Promise.all(
    ['dry_look', 'drying_reset'].map(t =>
      on.row<{ mark: string }>(`SELECT CONCAT_WS(' ', COUNT(*), MAX(id)) AS mark FROM ${t}`),
    ),
  )
  const mark = `${looks?.mark} ${resets?.mark}`
  if (known?.mark === mark) return known.learnt
  const all = looksOf(await readLooks(on))
  const ask = learnDrying(all)
  const bases = new Set(all.map(l => l.base))
  const learnt: Learnt | null = all.length
    ? {
        classes: MATERIALS.filter(m => bases.has(m.base)).map(m => m.slug),
        of: ({ class: of, productId }) => ask({ base: materialOf(of).base, of, product: nameOf(productId) }),
      }
    : null
  known = { mark, learnt }
  return learnt
}

/** Looks so far at a product count no more; the usual spread is begun from again. */
export const forgetDrying = (id: number, by: Person, at: Date) =>
  transaction(async tx => {
    const product = await tx.row<{ name: string; class: string }>('SELECT name, class FROM product WHERE id = :id', {
      id,
    })
    if (!product) throw notFound('product')
    await tx.run('INSERT INTO drying_reset (class, product_id, at, by_id) VALUES (:class, :id, :at, :by)', {
      ...{ class: product.class, id, at, by: by.id },
    })
    await logShop(tx, 'store', `Dry times put back to the usual: ${product.name}`, at, by.id)
    await tell(tx, 'store', null, at)
    return { ok: true }
  })

/** The last putting back of a product is taken back: looks before it count again. */
export const recallDrying = (id: number, by: Person, at: Date) =>
  transaction(async tx => {
    const product = await tx.row<{ name: string }>('SELECT name FROM product WHERE id = :id', { id })
    if (!product) throw notFound('product')
    await tx.run('DELETE FROM drying_reset WHERE product_id = :id ORDER BY id DESC LIMIT 1', { id })
    await logShop(tx, 'store', `Dry times as they were learnt: ${product.name}`, at, by.id)
    await tell(tx, 'store', null, at)
    return { ok: true }
  })

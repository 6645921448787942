/** Finds anything of the shop by a few letters, a number, or the address on a label. */
import { SIGNS } from '#core/diagnose'
import { db } from '../../database/db'

export interface Found {
  kind: 'piece' | 'client' | 'item' | 'place' | 'product' | 'lot' | 'pot' | 'recipe' | 'entry' | 'sign'
  title: string
  also: string
  to: string
}
const MOST = 6
/** The shortest word that the index of the log knows. */
const LEAST_WORD = 3

const SOURCES: Readonly<Record<Exclude<Found['kind'], 'sign'>, string>> = {
  piece: `SELECT piece.name AS title, CONCAT(piece.id, ' · ', client.name) AS also,
      CONCAT('/pieces/', piece.id) AS \`to\`
      FROM piece
      JOIN client ON client.id = piece.client_id
      WHERE piece.id = :number OR piece.name LIKE :like
      ORDER BY piece.id = :number DESC, piece.name LIKE :start DESC,
        piece.state IN ('handed-over', 'part-done'), piece.id DESC
      LIMIT ${MOST}`,
  client: `SELECT client.name AS title, CONCAT_WS(' · ', NULLIF(client.phone, ''), NULLIF(client.email, '')) AS also,
      CONCAT('/clients/', client.id) AS \`to\`
      FROM client
      WHERE client.merged_into IS NULL
        AND (client.name LIKE :like OR client.email LIKE :like OR REPLACE(client.phone, ' ', '') LIKE :tight)
      ORDER BY client.name LIKE :start DESC, client.name
      LIMIT ${MOST}`,
  item: `SELECT CONCAT(item.mark, ' ', item.name) AS title,
      CONCAT_WS(' · ', CONCAT(piece.id, ' ', piece.name), place.code) AS also,
      CONCAT('/pieces/', piece.id, '/parts') AS \`to\`
      FROM item
      JOIN piece ON piece.id = item.piece_id
      LEFT JOIN place ON place.id = item.place_id
      WHERE item.mark LIKE :start OR item.name LIKE :like
      ORDER BY item.mark = :find DESC, item.mark LIKE :start DESC, item.id DESC
      LIMIT ${MOST}`,
  place: `SELECT code AS title, kind AS also, CONCAT('/places/', code) AS \`to\`
      FROM place
      WHERE code LIKE :like
      ORDER BY code LIKE :start DESC, code
      LIMIT ${MOST}`,
  product: `SELECT name AS title, '' AS also, '/store' AS \`to\`
      FROM product
      WHERE name LIKE :like
      ORDER BY name LIKE :start DESC, name
      LIMIT ${MOST}`,
  lot: `SELECT CONCAT(lot.code, ' ', product.name) AS title, CONCAT(ROUND(lot.left_amount), ' ', product.unit) AS also,
      CONCAT('/lots/', lot.id) AS \`to\`
      FROM lot
      JOIN product ON product.id = lot.product_id
      WHERE lot.code LIKE :start
      ORDER BY lot.id DESC
      LIMIT ${MOST}`,
  pot: `SELECT CONCAT(batch.id, ' ', batch.name) AS title, IFNULL(piece.name, '') AS also,
      CONCAT('/mixing/', batch.id) AS \`to\`
      FROM batch
      LEFT JOIN piece ON piece.id = batch.piece_id
      WHERE batch.id = :number OR batch.name LIKE :like
      ORDER BY batch.id = :number DESC, batch.id DESC
      LIMIT ${MOST}`,
  recipe: `SELECT recipe.name AS title, IFNULL(piece.name, '') AS also, '/colour/recipes' AS \`to\`
      FROM recipe
      LEFT JOIN piece ON piece.id = recipe.piece_id
      WHERE recipe.name LIKE :like
      ORDER BY recipe.name LIKE :start DESC, recipe.id DESC
      LIMIT ${MOST}`,
  entry: `SELECT logbook.says AS title, CONCAT_WS(' · ', CONCAT(piece.id, ' ', piece.name), person.name) AS also,
      CONCAT('/pieces/', piece.id, '/log') AS \`to\`
      FROM logbook
      JOIN piece ON piece.id = logbook.piece_id
      LEFT JOIN person ON person.id = logbook.person_id
      WHERE MATCH (logbook.says) AGAINST (:words IN BOOLEAN MODE)
      ORDER BY logbook.id DESC
      LIMIT ${MOST}`,
}
const KINDS = Object.keys(SOURCES) as (keyof typeof SOURCES)[]
/** Signs of something that went wrong, by their names. */
const signs = (q: string): Found[] =>
  SIGNS.filter(s => q.length >= LEAST_WORD && s.name.toLowerCase().includes(q.toLowerCase()))
    .slice(0, MOST)
    .map(s => ({ kind: 'sign', title: s.name, also: '', to: `/faults?sign=${s.slug}` }))
/** What the code on a label leads to. */
const LABEL = /^https?:\/\/[^/]+(\/(?:pieces|mixing|places)\/[A-Za-z0-9-]{1,20})\/?$/

/** By kind, the best first; a label's address leads to what it names. */
export async function find(q: string): Promise<Found[]> {
  const label = LABEL.exec(q)
  if (label) return [{ kind: 'place', title: label[1]!, also: '', to: label[1]! }]
  const plain = q.replace(/[\\%_]/g, '\\$&')
  const words = q.split(/[^\p{L}\p{N}]+/u).filter(word => word.length >= LEAST_WORD)
  const params = {
    find: q,
    number: /^#?\d{1,9}$/.test(q) ? Number(q.replace('#', '')) : 0,
    like: `%${plain}%`,
    start: `${plain}%`,
    tight: `%${plain.replaceAll(' ', '')}%`,
    // short words may be among those that the index leaves out: they help, and are not asked for
    words: words.map(word => (word.length > LEAST_WORD ? `+${word}*` : `${word}*`)).join(' '),
  }
  const found = await Promise.all(
    KINDS.filter(kind => kind !== 'entry' || words.length > 0).map(async kind =>
      (await db().rows<Omit<Found, 'kind'>>(SOURCES[kind], params)).map(row => ({ kind, ...row })),
    ),
  )
  return [...found.flat(), ...signs(q)]
}

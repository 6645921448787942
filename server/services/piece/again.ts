/** A piece that went home and comes again: a new one that follows it, and knows what this shop laid on it. */
import { does } from '#core/acts'
import { signOf } from '#core/diagnose'
import { MATERIALS } from '#core/materials'
import { type FinishClass, layersLaid, STRIPPING, wentHome } from '#core/piece'
import { db, type Db, transaction } from '../../database/db'
import { readBands } from '../colour/bandRows'
import { readColourants } from '../colour/colourants'
import { readFaults } from '../diagnosis/rows'
import { readPlan, type StoredPlan } from '../plan/rows'
import { tell } from '../platform/log'
import type { Person } from '../shop/person'
import { insertPiece } from './pieces'
import { readPiece } from './read'
import type { FaceRow, PieceFile } from './rows'
import { saidFinish } from './saidFinish'

/** What was laid on a face and is done, in order. */
const laidOn = (plan: StoredPlan, face: number) =>
  plan.steps.filter(st => st.state === 'done' && st.product && does(st, 'finishes') && st.faces.includes(face))

/** What it carried when it went home, from the top down: what was laid, over what was known and not taken off. */
function layersOf({ facts, choice }: PieceFile, plan: StoredPlan, face: FaceRow): FinishClass[] {
  const laid = layersLaid(laidOn(plan, face.id).map(st => st.product!))
  const { buildUps } = choice ?? { buildUps: [] }
  const own = buildUps.find(b => b.faces?.includes(face.id)) ?? buildUps[0]
  const bared = laid.length > 0 && own !== undefined && STRIPPING.includes(own.ground)
  const kept = facts.finishes.find(f => f.group === face.finish_group)?.layers.map(l => l.finish) ?? []
  const under = bared ? [] : kept.filter(f => f !== 'none' && f !== laid.at(-1))
  return [...laid, ...under].slice(0, 5)
}
const groupLetter = (i: number) => String.fromCharCode('A'.charCodeAt(0) + Math.min(i, 7))

/** Its faces by what they carry, each group known by this shop's own record. */
async function carryFinish(tx: Db, file: PieceFile, made: number, person: Person, at: Date) {
  const plan = await readPlan(tx, file)
  const { faces } = await readPiece(tx, made)
  const layers = file.faces.map(f => layersOf(file, plan, f))
  const groups = [...new Map(layers.map(l => [l.join(), l])).values()]
  const groupOf = (i: number) => groups.findIndex(g => g.join() === layers[i]!.join())
  for (const [i, face] of faces.entries())
    await tx.run('UPDATE face SET finish_group = :letter WHERE id = :id', {
      ...{ id: face.id, letter: groupLetter(groupOf(i)) },
    })
  for (const [g, group] of groups.entries())
    for (const [i, finish] of group.entries())
      await saidFinish(
        tx,
        { piece: made, group: groupLetter(g), layer: i + 1, finish, word: `By the record of piece ${file.piece.id}` },
        person,
        at,
      )
}
const partsOf = (faces: readonly FaceRow[]) =>
  [...new Set(faces.map(f => f.part))].map(name => ({
    name,
    scope: faces.find(f => f.part === name)!.scope as 'refinish',
    faces: faces
      .filter(f => f.part === name)
      .map(f => ({
        ...{ name: f.name, rank: f.face_rank, shape: f.shape, orientation: f.orientation, count: f.copies },
        ...{ length: `${f.length_mm} mm`, width: `${f.width_mm} mm`, species: f.species, substrate: f.substrate },
        veneer: f.veneer_mm === null ? '' : `${f.veneer_mm} mm`,
      })),
  }))

/** It comes back, to be mended or renewed. */
export const comesBack = (id: number, person: Person, at: Date): Promise<{ id: number }> =>
  transaction(async tx => {
    const file = await readPiece(tx, id, true)
    const { piece, faces, facts } = file
    if (!wentHome(piece.state)) throw fail(409, 'nothing', 'It is still here. Only what went home comes back.')
    const made = await insertPiece(
      tx,
      {
        ...{ name: piece.name, note: '', use: facts.use, tone: 'same', sheen: piece.sheen, age: facts.age },
        client: { id: piece.client_id, name: piece.client_name, email: '', phone: '' },
        ...{ dueOn: null, period: piece.period, lead: piece.lead_answer, parts: partsOf(faces) },
        // this shop did it last, and knows with what
        ...{ refinished: 'yes', keepPatina: Boolean(piece.keep_patina), rustic: Boolean(piece.rustic) },
      },
      { state: 'active', says: `Came back: ${piece.name}, was piece ${id}` },
      person,
      at,
    )
    await tx.run('UPDATE piece SET follows_id = :id WHERE id = :made', { id, made })
    await carryFinish(tx, file, made, person, at)
    await tell(tx, 'piece', id, at)
    return { id: made }
  })

/** "varnish oil × 4 → wax": what was laid, coat on coat, each product once for as long as it goes on. */
function laidSaid(products: readonly string[]): string[] {
  const runs: { product: string; n: number }[] = []
  for (const product of products) {
    const last = runs.at(-1)
    if (last?.product === product) last.n++
    else runs.push({ product, n: 1 })
  }
  const nameOf = (slug: string) => MATERIALS.find(m => m.slug === slug)?.name ?? slug
  return runs.map(({ product, n }) => (n > 1 ? `${nameOf(product)} × ${n}` : nameOf(product)))
}
/** What this shop did to it before: what lies on which part, colours and their pots, what went wrong. */
export async function before(id: number) {
  const { piece } = await readPiece(db(), id)
  if (piece.follows_id === null) return { was: null }
  const file = await readPiece(db(), piece.follows_id)
  const plan = await readPlan(db(), file)
  const [bands, colourants] = [await readBands(db(), piece.follows_id), await readColourants(db())]
  const names = new Map(colourants.map(c => [c.product_id, c.name]))
  const parts = [...new Set(file.faces.map(f => f.part))].map(part => ({
    part,
    laid: laidSaid(
      plan.steps
        .filter(st => st.state === 'done' && (does(st, 'finishes') || does(st, 'colours')))
        .filter(st => file.faces.some(f => f.part === part && st.faces.includes(f.id)))
        .flatMap(st => st.product ?? []),
    ),
  }))
  const alike = [...new Set(parts.map(p => p.laid.join('\n')))]
  return {
    was: {
      ...{ id: file.piece.id, wentHomeAt: file.piece.handed_over_at },
      laid: alike
        .map(key => ({ parts: parts.filter(p => p.laid.join('\n') === key).map(p => p.part), steps: key.split('\n') }))
        .filter(l => l.steps[0] !== ''),
      colours: bands
        .filter(b => b.approved_at)
        .map(b => ({
          ...{ title: b.title, recipeId: b.recipe_id, potId: b.batch_id, coats: b.coats, light: b.judged_light },
          shares: (b.shares ?? []).map(s => ({ name: names.get(s.id) ?? '', pct: s.pct })),
        })),
      pots: await db().rows<{ id: number; name: string; left_g: number | null; place: string }>(
        `SELECT id, name, left_g, place
            FROM batch
            WHERE piece_id = :id AND closed_at IS NULL AND COALESCE(left_g, 0) > 0`,
        { id: file.piece.id },
      ),
      readings: await db().rows<{ id: number; name: string }>(
        'SELECT id, name FROM reading WHERE piece_id = :id AND withdrawn_at IS NULL ORDER BY id DESC LIMIT 12',
        { id: file.piece.id },
      ),
      faults: (await readFaults(db(), file.piece.id)).map(({ id: fault, sign, cause }) => ({
        ...{ id: fault, name: signOf(sign).name },
        cause: cause === null ? null : signOf(sign).causes[cause]!.says,
      })),
    },
  }
}

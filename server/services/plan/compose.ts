import type { z } from 'zod'
import { does, type Step, stepOf } from '#core/acts'
import { canonicalJson, type Json } from '#core/approval'
import { type BuildUp, everyday, type Layer, laidOn, lookOfChoice, groupsOfWay, waysOf } from '#core/build'
import { layerOfStep } from '#core/plan'
import type * as s from '#shared/schemas'
import { db, type Db } from '../../database/db'
import { onPiece } from '../piece/pieces'
import { readPiece } from '../piece/read'
import type { PieceFile } from '../piece/rows'
import type { Person } from '../shop/person'
import { readAsking } from './asking'
import { setGround, writeLayers } from './buildUps'
import { askAnew } from './choose'
import { keepKnown } from './findings'
import { leastsOf, readPlan, type StoredPlan } from './rows'
import { writeSteps } from './edits'

/** Layers of which a step has started: they stay as they are. */
const frozenIn = (plan: StoredPlan): Set<number> =>
  new Set(
    plan.steps
      .filter(st => st.state === 'running' || st.state === 'done')
      .flatMap(st => layerOfStep(st.key) ?? [])
      .map(l => l.layer),
  )

/** What has started, what is still ahead, and every key: what a plan that is worked out anew starts from. */
export const aheadOf = (plan: StoredPlan) => ({
  past: plan.steps.filter(st => st.state === 'running' || st.state === 'done'),
  ahead: plan.steps.filter(st => st.state === 'planned'),
  keys: plan.steps.map(st => st.key),
})

/** What is composed: build-ups with their layers, what stays out on this ground, and what is needed to plan anew. */
export async function composePage(id: number, at: Date) {
  const file = await readPiece(db(), id)
  const { choice, context } = file
  const plan = await readPlan(db(), file)
  const products = await db().rows<{ id: number; name: string; class: string; label: number | null }>(
    `SELECT p.id, p.name, p.class, (SELECT MAX(id) FROM product_label WHERE product_id = p.id) AS label
        FROM product p
        ORDER BY p.name`,
  )
  return {
    rowVersion: file.piece.row_version,
    ready: choice !== null && plan.steps.length > 0,
    choice,
    context,
    asking: await readAsking(at),
    products,
    recipes: (await db().rows<{ name: string }>('SELECT DISTINCT name FROM recipe ORDER BY name')).map(r => r.name),
    frozen: [...frozenIn(plan)],
    plan: aheadOf(plan),
    out: choice
      ? waysOf(context, choice).flatMap(way =>
          groupsOfWay(way).flatMap(group =>
            laidOn({ ...context, facts: way.facts }, way.buildUp, group).out.map(o => ({
              layer: o.layer.id,
              why: o.why,
            })),
          ),
        )
      : [],
    faces: file.faces
      .filter(f => f.scope === 'refinish')
      .map(f => ({ id: f.id, name: `${f.part}, ${f.name}`, species: f.species, rank: f.face_rank })),
  }
}

/** The client's word once more, where it was given; else the one that still waits. */
function wordAgain({ steps }: StoredPlan): Step[] {
  const words = steps.filter(st => does(st, 'words'))
  const last = words.at(-1)
  if (!last) return []
  if (last.state === 'planned') return [last]
  return [stepOf({ ...last, key: `${last.key.split('~')[0]}~${words.length + 1}`, why: 'the look has changed' })]
}

/** Asks the client once more, where there was a word: what was agreed looks otherwise now. */
export async function askOnceMore(tx: Db, file: PieceFile): Promise<void> {
  const plan = await readPlan(tx, file)
  const words = wordAgain(plan)
  if (words.length === 0) return
  const started = plan.steps.filter(st => st.state !== 'planned')
  const ahead = plan.steps.filter(st => st.state === 'planned' && !does(st, 'words'))
  await writeSteps(tx, file, plan, [...started, ...words, ...ahead], leastsOf(plan.waits))
  await askAnew(tx, file.piece.id)
}

/** The faces in scope that a build-up has. */
const facesIn = ({ context, choice }: PieceFile, target: BuildUp): number[] =>
  (choice ? waysOf(context, choice) : [])
    .filter(w => w.buildUp === target)
    .flatMap(w => w.facts.faces.filter(f => f.scope === 'refinish').map(f => f.id))

type Composed = z.infer<typeof s.compose>
const SAME = ['act', 'product', 'coats', 'film_um', 'method', 'use'] as const
/** The same to somebody who works on it; the newest label of its product may be another by now. */
const sameLayer = (a: Layer, b: Layer): boolean =>
  SAME.every(what => a[what] === b[what]) &&
  canonicalJson({ fields: a.fields, faces: a.faces, between: a.between } as unknown as Json) ===
    canonicalJson({ fields: b.fields, faces: b.faces, between: b.between } as unknown as Json)

/** The newest label of a product of the shop; refused where it is of another class than the layer. */
async function labelsOf(tx: Db, layers: Composed['layers']): Promise<Map<number, number>> {
  const ids = layers.flatMap(l => l.productId ?? [])
  if (ids.length === 0) return new Map()
  const rows = await tx.rows<{ id: number; class: string; label: number }>(
    `SELECT p.id, p.class, MAX(l.id) AS label
        FROM product p
        JOIN product_label l ON l.product_id = p.id
        WHERE p.id IN (:ids)
        GROUP BY p.id, p.class`,
    { ids },
  )
  for (const l of layers) {
    const own = rows.find(r => r.id === l.productId)
    if (l.productId !== null && own?.class !== l.product)
      throw fail(422, 'invalid', 'This product is of another class than its layer. Choose it again.')
  }
  return new Map(rows.map(r => [r.id, r.label]))
}

function refuseFrozen(before: BuildUp, after: BuildUp, frozen: ReadonlySet<number>) {
  for (const layer of before.layers.filter(l => frozen.has(l.id))) {
    const now = after.layers.find(l => l.id === layer.id)
    if (!now || !sameLayer(layer, now))
      throw fail(409, 'started', 'Work on a layer has started; it stays as it is. Change what comes after it.')
  }
  const last = before.layers.findLastIndex(l => frozen.has(l.id))
  if (before.layers.slice(0, last + 1).some((l, i) => after.layers[i]?.id !== l.id))
    throw fail(409, 'started', 'Nothing below a layer on which work has started can be put in, moved or taken out.')
}

/**
 * Takes a composed surface: the plan is worked out anew, with what was changed by hand made again where its step still
 * exists. Started steps stay; a changed look asks the client again.
 */
export const compose = (id: number, input: Composed, person: Person, at: Date) =>
  onPiece(id, at, person, async (tx, file) => {
    if (file.piece.row_version !== input.rowVersion) throw stale()
    const old = file.choice
    const target = old?.buildUps.find(b => b.id === input.buildUpId)
    if (!old || !target) throw notFound('build-up')
    const faces = new Set(facesIn(file, target))
    if (input.layers.some(l => l.faces?.some(f => !faces.has(f))))
      throw fail(422, 'invalid', 'A face is not on this build-up.', { layers: 'Choose faces of this build-up.' })
    const labels = await labelsOf(tx, input.layers)
    const next: BuildUp = {
      ...target,
      ending: input.ending,
      layers: input.layers.map(({ productId, ...l }) => ({
        ...l,
        label: productId === null ? null : (labels.get(productId) ?? null),
      })),
    }
    const plan = await readPlan(tx, file)
    refuseFrozen(target, next, frozenIn(plan))
    await setGround(tx, target.id, next)
    await writeLayers(tx, target.id, input.layers)
    const now = await readPiece(tx, id)
    const after = now.choice!
    const made = await inWorker('recompose', {
      context: now.context,
      before: old,
      after,
      ...aheadOf(plan),
      leave: input.leave,
    })
    const started = plan.steps.filter(st => st.state !== 'planned')
    const keys = new Set(started.map(st => st.key))
    const asksAgain = lookOfChoice(old, file.context) !== lookOfChoice(after, now.context)
    const order = [
      ...started,
      ...(asksAgain ? wordAgain(plan) : []),
      ...made.steps.filter(st => !keys.has(st.key) && !(asksAgain && does(st, 'words'))),
    ]
    await writeSteps(tx, now, plan, order, leastsOf(plan.waits))
    await tx.run('DELETE FROM plan_edit WHERE piece_id = :id', { id })
    await keepKnown(tx, now)
    if (asksAgain) await askAnew(tx, id)
    else await tx.run('UPDATE piece SET row_version = row_version + 1 WHERE id = :id', { id })
    const laid = next.layers.flatMap(l => everyday(l, now.context) ?? []).join(', ')
    return {
      kind: 'route',
      says: `Surface composed: ${laid || 'nothing laid'}`,
      result: { kept: made.kept, lost: made.lost },
    }
  })

/** Where a mend goes in a plan: what lies on its faces by now, and what the plan lays on them next. */
import { does } from '#core/acts'
import type { MendAt } from '#core/diagnose'
import { NO_FILM, STRIPPING } from '#core/piece'
import type { PieceFile } from '../piece/rows'
import type { PlannedStep, StoredPlan } from '../plan/rows'

const laidOn = (a: PlannedStep, b: PlannedStep) =>
  a.kind === b.kind && a.product === b.product && b.faces.every(f => a.faces.includes(f))
/** Does the plan lay the same on these faces again, after this step? */
function follows({ steps }: StoredPlan, own: PlannedStep): boolean {
  const after = steps.slice(steps.indexOf(own) + 1)
  return does(own, 'covers') && after.some(st => st.state === 'planned' && laidOn(st, own))
}
/** Was a film left on, or laid since? */
function filmOn({ facts, choice, faces: all }: PieceFile, done: readonly PlannedStep[], faces: readonly number[]) {
  if (done.some(st => does(st, 'films'))) return true
  const builds = choice?.buildUps ?? []
  const own = builds.find(b => b.faces?.some(f => faces.includes(f))) ?? builds[0]
  if (own && STRIPPING.includes(own.ground) && done.length > 0) return false
  const group = all.find(f => faces.includes(f.id))?.finish_group
  const top = facts.finishes.find(f => f.group === group)?.layers[0]?.finish
  return top !== undefined && !NO_FILM.includes(top)
}
export function mendAt(
  file: PieceFile,
  plan: StoredPlan,
  own: PlannedStep | undefined,
  faces: readonly number[] = own?.faces ?? [],
): MendAt {
  const done = plan.steps.filter(st => (st.state === 'done' || st === own) && st.faces.some(f => faces.includes(f)))
  return {
    ...{ faces, step: own ?? null, film: filmOn(file, done, faces) },
    colour: done.findLast(st => does(st, 'colours')) ?? null,
    follows: own ? follows(plan, own) : false,
  }
}

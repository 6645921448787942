/** All waits of a list of steps, worked out from the acts. */
import type { Air } from '../air'
import type { Context } from '../context'
import { actOf, does } from './acts'
import type { Step, StepKind } from './step'
import { D, fixed, ONE_AFTER_THE_OTHER, type WaitDraft, type Wait } from './wait'

/** What must pass between two steps that follow each other on a face. */
export function waitAfter(step: Step, next: Step, context: Context): WaitDraft {
  if (next.gate?.slug === 'moisture') {
    const days = Math.max(...context.facts.wet.filter(w => next.faces.includes(w.faceId)).map(w => w.likely_d), 0)
    return fixed('dry', 0, days * D, 1.5 * days * D, 'the wood dries toward equilibrium with the room')
  }
  return actOf(step).then(step, next, context) ?? ONE_AFTER_THE_OTHER
}

const dries = (step: Step) => step.kind === 'stain' || step.kind === 'gel'
const closes = (step: Step) => does(step, 'finishes')
/** The last thing that is wet before the piece is put together: a coat, or oil once it is wiped. */
const lasts = (step: Step) => step.kind === 'coat' || step.kind === 'oil-off'

/** What wants the last coat at rest, whatever lies between them. */
const RESTS: readonly StepKind[] = ['finish-up', 'rub-out', 'turn']

/**
 * All waits of a list of steps: between neighbours on a face, and where another step lies between them, from the last
 * colour to the first cover and from the last coat to putting together. `airAfter`: the air in which a step dries.
 */
export function waitsBetween(
  steps: readonly Step[],
  context: Context,
  airAfter: (step: Step) => Air = () => context.air,
): Wait[] {
  const waits: Wait[] = []
  const last = new Map<number, Step>()
  const lastConditioner = new Map<number, Step>()
  const openColour = new Map<number, Step>()
  const lastCoat = new Map<number, Step>()
  for (const step of steps) {
    const after = new Set<Step>()
    for (const face of step.faces) {
      const before = last.get(face)
      if (before) after.add(before)
      const conditioner = lastConditioner.get(face)
      if (dries(step) && conditioner && conditioner !== before) after.add(conditioner)
      const colour = openColour.get(face)
      if (closes(step) && colour && colour !== before) after.add(colour)
      const coated = lastCoat.get(face)
      if (RESTS.includes(step.kind) && coated && coated !== before) after.add(coated)
      if (lasts(step)) lastCoat.set(face, step)
      if (step.kind === 'conditioner') lastConditioner.set(face, step)
      if (dries(step)) {
        openColour.set(face, step)
        lastConditioner.delete(face)
      }
      if (closes(step)) openColour.delete(face)
      last.set(face, step)
    }
    for (const from of after)
      waits.push({ from: from.key, to: step.key, ...waitAfter(from, step, { ...context, air: airAfter(from) }) })
  }
  return waits
}

/** What a composed surface comes to, and what may be put where. */
import {
  type BuildUp,
  type Choice,
  freshLayerId,
  groupsOfWay,
  laidOn,
  type Layer,
  layerOfOffer,
  type Offer,
  offers,
  putIn,
  waysOf,
} from '../build'
import { ACTS } from '../acts'
import type { Context } from '../context'
import { workOutPlan } from './planner'

/** The layer that a step belongs to, or that it was put in for; null: the ground's, or one added by hand. */
export function layerOfStep(key: string): { layer: number; before: boolean } | null {
  const found = /^(?:f-)?(\d+)\.(before\.)?/.exec(key)
  return found ? { layer: Number(found[1]), before: found[2] !== undefined } : null
}

export const replaceBuildUp = ({ buildUps: [main, ...rest] }: Choice, next: BuildUp): Choice => ({
  buildUps: [main.id === next.id ? next : main, ...rest.map(b => (b.id === next.id ? next : b))],
})

export interface Judged {
  rule: string
  severity: string
  says: string
  step: string
}
export interface OfferHere extends Offer {
  /** why not; null: it may */
  against: string | null
}
/** Why a layer is not laid on this ground at all; null: it is, on some face. */
function staysOut(context: Context, choice: Choice, id: number): string | null {
  const laid = waysOf(context, choice).flatMap(way =>
    groupsOfWay(way).map(group => laidOn({ ...context, facts: way.facts }, way.buildUp, group)),
  )
  if (laid.some(l => l.laid.some(x => x.id === id))) return null
  return laid.flatMap(l => l.out).find(o => o.layer.id === id)?.why ?? null
}
const placeOf = (layer: Pick<Layer, 'act' | 'use'>) => ACTS[layer.act].layer?.place(layer.use) ?? 0
/** How far from where it usually stands an act would lie at this place: 0 where it would be usual. */
function farFrom(buildUp: BuildUp, at: number, act: Layer['act']): number {
  const [below, above] = [buildUp.layers[at - 1], buildUp.layers[at]]
  const here = placeOf({ act, use: null })
  return Math.max(0, (below ? placeOf(below) : 0) - here, here - (above ? placeOf(above) : Infinity))
}
/**
 * Every layer that may be put in at a place of a build-up, those that nothing speaks against first, the
 * likely ones before the others. `stops`: what the
 * rules say of a plan, the graver kinds alone.
 */
export function offersAt(
  context: Context,
  choice: Choice,
  buildUp: BuildUp,
  at: number,
  stops: (choice: Choice, plan: ReturnType<typeof workOutPlan>) => readonly Judged[],
): OfferHere[] {
  const id = freshLayerId(choice)
  const said = (c: Choice) => stops(c, workOutPlan(context, c))
  const before = new Set(said(choice).map(v => `${v.rule}|${v.says}`))
  const here = offers().map((offer): OfferHere => {
    const layer: Layer = layerOfOffer(id, offer)
    const next = replaceBuildUp(choice, putIn(buildUp, at, layer))
    const out = staysOut(context, next, id)
    if (out) return { ...offer, against: out }
    const found = said(next).filter(v => !before.has(`${v.rule}|${v.says}`))
    const own = found.find(v => layerOfStep(v.step)?.layer === id) ?? found[0]
    return { ...offer, against: own?.says ?? null }
  })
  const likely = (o: OfferHere) => (o.against === null ? farFrom(buildUp, at, o.act) : Infinity)
  return here
    .map((o, i) => ({ o, i }))
    .sort((a, b) => likely(a.o) - likely(b.o) || a.i - b.i)
    .map(({ o }) => o)
}

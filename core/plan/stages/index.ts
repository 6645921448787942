/** The stages of the work on one group of faces: each is put in only where the state of the surface asks for it. */
import { does, isBare, isOthersColour, type Surface } from '../../acts'
import type { BuildUp, Layer } from '../../build'
import type { Context } from '../../context'
import { type Group, type RouteSlug, STRIPPING } from '../../piece'
import { asItStands, raiseGrain, sandBare, sandOff, strip, testPiece, wetOut } from './bare'
import { benchFor, type Bench, cleanOff, type Draft, mend } from './bench'
import { end, lay } from './layers'
import { ironOut, makeFast, readyWood } from './marks'
import {
  amalgamate,
  level,
  moistureGate,
  polish,
  renew,
  ringsOut,
  scuff,
  spotRepair,
  washContamination,
  wash,
} from './keep'

export { roundsOf } from './layers'
export { otherDrafts } from './notWood'
export { bareLadder, budgetOf, type Draft, ladderBudget } from './bench'

/** What is done with what is there, before any layer. */
function ground(b: Bench): void {
  switch (b.buildUp.ground) {
    case 'as-it-stands':
      washContamination(b, 110)
      return mend(b, 190, 'mend', 'mended before the last grit, which cuts it flush')
    case 'clean-and-wax':
      mend(b, 140, 'mend', 'small mends before the wax')
      return ringsOut(b)
    case 'renew':
      washContamination(b, 110)
      return renew(b)
    case 'polish':
      washContamination(b, 110)
      return polish(b)
    case 'amalgamate':
      washContamination(b, 110)
      return amalgamate(b)
    case 'spot-repair':
      washContamination(b, 110)
      return spotRepair(b)
    case 'scuff':
      return scuff(b)
    case 'level-barrier-recoat':
      return level(b)
    case 'strip-chemical':
    case 'strip-both':
      return strip(b)
    case 'strip-mechanical':
      return sandOff(b)
    case 'refer':
  }
}

/** The bare wood is sanded, bleached, its grain raised and its dust taken off; the layers come from there. */
function bareWood(b: Bench, bleaches: readonly Layer[]) {
  if (b.buildUp.ground === 'as-it-stands' && isOthersColour(b.s)) {
    asItStands(b)
    return lay(b, bleaches)
  }
  readyWood(b)
  if (b.buildUp.ground === 'as-it-stands') asItStands(b)
  else sandBare(b)
  ironOut(b)
  lay(b, bleaches)
  raiseGrain(b)
  wetOut(b)
  cleanOff(b, 225, 'dust in the pores greys the finish')
}

/** Grounds on which nothing is covered, so that bare wood stays as it is. */
const STAYS: readonly RouteSlug[] = ['clean-and-wax', 'spot-repair', 'renew', 'polish']

/**
 * Steps of one group in the order they are put; `order` sorts them among other groups'. `again`: after a failed gate,
 * before which everything was made fast.
 */
export function stagesOf(context: Context, buildUp: BuildUp, group: Group, start: Surface, again: boolean): Draft[] {
  const { b, drafts } = benchFor(context, buildUp, group, start)
  const strips = STRIPPING.includes(buildUp.ground)
  if (buildUp.ground === 'refer') {
    b.put(150, 'refer', 'museum quality, a rare original finish or a suspected toxic coating', { method: 'none' })
    return drafts
  }
  wash(b, start)
  if (!again) makeFast(b)
  if (!strips) moistureGate(b, 114)
  ground(b)
  const firstOther = b.layers.findIndex(l => !does({ kind: l.act }, 'floods'))
  const bleaches = b.layers.slice(0, firstOther < 0 ? b.layers.length : firstOther)
  const sands = isBare(b.s) && !STAYS.includes(buildUp.ground)
  if (sands) bareWood(b, bleaches)
  const rest = sands ? b.layers.slice(bleaches.length) : b.layers
  if (strips) moistureGate(b, 290)
  testPiece(b)
  lay(b, rest)
  end(b)
  return drafts
}

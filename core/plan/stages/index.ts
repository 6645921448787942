/** The stages of the work on one group of faces: each is put in only where the state of the surface asks for it. */
import { isBare, type Surface } from '../../acts'
import { type Choice, STRIPPING } from '../../build'
import type { Context } from '../../context'
import { type Group, mendingOf } from '../../piece'
import { bleach, fillProduct, fill, raiseGrain, sandBare, sandOff, strip } from './bare'
import { benchFor, type Bench, cleanOff, type Draft, isJoint, mend } from './bench'
import { colour, seal } from './colour'
import { barrier, finish, oilUnderShellac } from './finish'
import { amalgamate, level, moistureGate, scuff, spotRepair, washContamination, wash } from './keep'

export { bareLadder, budgetOf, type Draft, isJoint, stopFor } from './bench'

/** What is done with what is there. True: nothing is laid on it afterwards. */
function ground(b: Bench): boolean {
  switch (b.choice.route) {
    case 'clean-and-wax':
      mend(b, 140, 'small mends before the wax')
      b.put(800, 'wax', 'the film is sound, and the client likes its colour', {
        product: 'paste-wax',
        method: 'rag',
        coat: 1,
      })
      return true
    case 'amalgamate':
      washContamination(b, 110)
      amalgamate(b)
      return false
    case 'spot-repair':
      washContamination(b, 110)
      spotRepair(b)
      return true
    case 'scuff-and-recoat':
    case 'scuff-and-gel':
      scuff(b)
      return false
    case 'level-barrier-recoat':
      level(b)
      return false
    case 'strip-chemical':
    case 'strip-both':
      strip(b)
      return false
    case 'strip-mechanical':
      sandOff(b)
      return false
    case 'refer':
      return true
  }
}

function bareWood(b: Bench) {
  sandBare(b)
  bleach(b)
  raiseGrain(b)
  cleanOff(b, 225, 'dust in the pores greys the finish')
  if (b.house['fill-when'] === 'fill-stain') fill(b, 240)
}

function fillAfterColour(b: Bench) {
  if (!isBare(b.s) || !fillProduct(b) || b.house['fill-when'] === 'fill-stain') return
  const why =
    b.house['fill-when'] === 'stain-fill'
      ? 'keeps the paper off the colour when the filler is sanded back'
      : 'keeps filler colour out of the wood; wipes off easily'
  seal(b, 336, 'before-filler', why)
  fill(b, 340)
}

/** Steps of one group in the order they are put; `order` sorts them among other groups'. */
export function stagesOf(context: Context, choice: Choice, group: Group, start: Surface): Draft[] {
  const { facts } = context
  const { b, drafts } = benchFor(context, choice, group, start)
  const strips = STRIPPING.includes(choice.route)
  if (choice.route === 'refer') {
    b.put(150, 'refer', 'museum quality, a rare original finish or a suspected toxic coating', { method: 'none' })
    return drafts
  }
  wash(b, start)
  if (mendingOf({ ...facts, faces: group.faces }).some(m => isJoint(m.kind)))
    b.put(112, 'joint', 'what is loose is made fast before anything is stripped or sanded')
  if (!strips) moistureGate(b, 114)
  if (ground(b)) return drafts
  if (isBare(b.s)) bareWood(b)
  if (strips) moistureGate(b, 290)
  if (choice.route !== 'amalgamate') colour(b)
  fillAfterColour(b)
  oilUnderShellac(b)
  barrier(b)
  finish(b)
  return drafts
}

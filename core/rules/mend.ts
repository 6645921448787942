/** Mends that are mechanical: one touch puts a step in, or changes one. The rules are run again afterwards. */
import { type Grit, isCoarser, ladderBetween, P } from '../abrasives'
import { stepOf, type Step } from '../acts'
import type { Verdict } from './judge'
import { hours } from './rule'

type Change = (step: Step) => Partial<Step>
interface Mend {
  /** what the touch does, in words */
  says: string
  /** put in before the step that breaks the rule */
  insert?: Pick<Step, 'kind'> & Partial<Step>
  /** change the step itself */
  change?: Change
  /** change the nearest earlier step that `which` finds */
  earlier?: { which: (step: Step) => boolean; change: Change }
}

const barrier: Mend['insert'] = {
  kind: 'coat',
  product: 'dewaxed-shellac',
  method: 'brush',
  coat: 1,
  fields: { as: 'barrier' },
}
const scuff = (grit: Grit): Mend['insert'] => ({ kind: 'scuff', grits: [grit], method: 'hand' })
/** A ladder with every gap filled from the shelf. */
const filled = (s: Step): Partial<Step> => {
  const between = (from: Grit, to: Grit) => ladderBetween(from, to).slice(1)
  const grits = s.grits.flatMap((g, i) => (i === 0 ? [g] : between(s.grits[i - 1]!, g)))
  return { grits }
}
const notCoarser = (s: Step, least: Grit): Partial<Step> => {
  const fine = s.grits.filter(g => !isCoarser(g, least))
  return { grits: fine.length ? fine : [least] }
}
const is = (product: string) => (s: Step) => s.product === product

const MENDS: Readonly<Record<string, Mend>> = {
  'conditioner-base-matches-stain': {
    says: "Take a conditioner of the stain's base",
    earlier: {
      which: s => s.kind === 'conditioner',
      change: s => ({ product: s.product === 'oil-conditioner' ? 'water-conditioner' : 'oil-conditioner' }),
    },
  },
  'gel-over-film-needs-scuff': { says: 'Put a scuff before it', insert: scuff(P(220)) },
  'recoat-window-passed': { says: 'Put a scuff before it', insert: scuff(P(320)) },
  'clean-before-abrade': {
    says: 'Put a wash before it',
    insert: { kind: 'wash', product: 'mild-soap', method: 'rag' },
  },
  'wax-under-anything': {
    says: 'Take the wax off before it',
    insert: { kind: 'solvent-wash', product: 'white-spirit', method: 'rag', fields: { against: 'wax' } },
  },
  'hot-solvent-over-oil-film': { says: 'Put dewaxed shellac between', insert: barrier },
  'waxy-shellac-under-film': {
    says: 'Take dewaxed shellac under it',
    earlier: { which: is('shellac-brushed'), change: () => ({ product: 'dewaxed-shellac' }) },
  },
  'stearate-sealer-under-catalysed': {
    says: 'Take vinyl sealer under it',
    earlier: { which: is('lacquer-sanding-sealer'), change: () => ({ product: 'vinyl-sealer' }) },
  },
  'steel-wool-and-water': {
    says: 'Wash off with rags and pads',
    earlier: { which: s => s.method === 'steel-wool', change: () => ({ method: 'rag' }) },
  },
  'no-abrasion-on-colour': { says: 'Put a clear coat over the colour first', insert: barrier },
  'lead-no-dust': { says: 'Work wet', change: () => ({ method: 'wet' }) },
  'poison-no-dust': { says: 'Work wet', change: () => ({ method: 'wet' }) },
  'keep-patina': { says: 'Nothing coarser than P180', change: s => notCoarser(s, P(180)) },
  'ladder-skips': { says: 'Put the grit between', change: filled },
  'veneer-budget': { says: 'By hand', change: () => ({ method: 'hand' }) },
  'dye-bleeds-into-same-solvent': { says: 'Spray it', change: () => ({ method: 'spray' }) },
  'exterior-stain-indoors': { says: 'Take an interior stain', change: () => ({ product: 'pigment-stain' }) },
  'resin-tack-cloth-before-waterborne': {
    says: 'Wipe with a damp cloth',
    earlier: {
      which: s => s.fields.dustBy === 'tack-cloth',
      change: s => ({ fields: { ...s.fields, dustBy: 'damp-cloth' } }),
    },
  },
  'bleach-rinse-and-dry': { says: 'Put a rinse before it', insert: { kind: 'rinse', method: 'rag' } },
  'cleaner-attacks-film': { says: 'Take white spirit', change: () => ({ product: 'white-spirit' }) },
  'wet-sand-needs-sealed-wood': { says: 'Sand it dry, by hand', change: () => ({ method: 'hand' }) },
  'repair-filler-before-colour': {
    says: 'Tint the filler',
    earlier: { which: s => s.kind === 'mend', change: s => ({ fields: { ...s.fields, filler: 'tinted' } }) },
  },
  'pva-on-sealed-joint': { says: 'Take epoxy', change: s => ({ fields: { ...s.fields, glue: 'epoxy' } }) },
  'rigid-filler-in-moving-crack': {
    says: 'Fill with what stretches',
    change: s => ({ fields: { ...s.fields, filler: 'stretching' } }),
  },
  'shake-and-bubbles': { says: 'Stir it', change: s => ({ fields: { ...s.fields, shaken: false } }) },
  'methylene-chloride-needs-licence': {
    says: 'Take a citrus or soy gel',
    change: () => ({ product: 'solvent-gel-stripper' }),
  },
}

type Mendable = Pick<Verdict, 'rule' | 'wait'>
/**
 * What one touch would do about a verdict, in words; null where a person must decide. A step that is too soon waits
 * longer.
 */
export const mendOf = (verdict: Mendable): string | null =>
  verdict.wait ? `Wait ${hours(verdict.wait.min)}` : (MENDS[verdict.rule]?.says ?? null)

/**
 * The steps with one verdict mended; null where its rule has no mechanical mend, or nothing to change was found.
 * `key` names a step that is put in.
 */
export function applyMend(steps: readonly Step[], verdict: Pick<Verdict, 'rule' | 'step'>, key: string): Step[] | null {
  const mend = MENDS[verdict.rule]
  const at = steps.findIndex(s => s.key === verdict.step)
  const step = steps[at]
  if (!mend || !step) return null
  if (mend.insert) {
    const fresh = stepOf({ why: 'put in to keep a rule', ...mend.insert, faces: step.faces, key })
    return [...steps.slice(0, at), fresh, ...steps.slice(at)]
  }
  const shares = (s: Step) => s.faces.some(f => step.faces.includes(f))
  const target = mend.earlier ? steps.slice(0, at).findLastIndex(s => mend.earlier!.which(s) && shares(s)) : at
  if (target < 0) return null
  const change = mend.earlier?.change ?? mend.change!
  return steps.map((s, i) => (i === target ? { ...s, ...change(s) } : s))
}

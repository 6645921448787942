/** Mends that are mechanical: one touch puts a step in, or changes one. The rules are run again afterwards. */
import { ladder_P } from '../abrasives'
import type { StepKind, Step } from '../acts'
import type { Verdict } from './judge'
import { hours } from './rule'

type Change = (step: Step) => Partial<Step>
interface Mend {
  /** what the touch does, in words */
  says: string
  /** put in before the step that breaks the rule */
  insert?: (step: Step) => Pick<Step, 'kind' | 'title'> & Partial<Step>
  /** change the step itself */
  change?: Change
  /** change the nearest earlier step that `which` finds */
  earlier?: { which: (step: Step) => boolean; change: Change }
}

const coat = (product: string, title: string) => (): Pick<Step, 'kind' | 'title'> & Partial<Step> => ({
  kind: 'coat',
  title,
  product,
  method: 'brush',
  coat: 1,
})
const barrier = coat('dewaxed-shellac', 'Dewaxed shellac barrier')
const scuff = () => ({ kind: 'scuff' as StepKind, title: 'Scuff P320 by hand', grits: [320], method: 'hand' as const })
/** A ladder with every gap filled from the shelf. */
const filled = (s: Step): Partial<Step> => {
  const grits = s.grits.flatMap((g, i) =>
    i === 0
      ? [g]
      : ladder_P(s.grits[i - 1]!, g)
          .slice(1)
          .map(x => x.number),
  )
  return { grits, title: s.title.replace(/P\d+( → P\d+)*/, grits.map(g => `P${g}`).join(' → ')) }
}
const is =
  (...products: string[]) =>
  (s: Step) =>
    s.product !== null && products.includes(s.product)

const MENDS: Readonly<Record<string, Mend>> = {
  'conditioner-base-matches-stain': {
    says: "Take a conditioner of the stain's base",
    earlier: {
      which: s => s.kind === 'conditioner',
      change: s => ({ product: s.product === 'oil-conditioner' ? 'water-conditioner' : 'oil-conditioner' }),
    },
  },
  'gel-over-film-needs-scuff': {
    says: 'Put a scuff before it',
    insert: () => ({ ...scuff(), title: 'Scuff P220 by hand', grits: [220] }),
  },
  'recoat-window-passed': { says: 'Put a scuff before it', insert: scuff },
  'clean-before-abrade': {
    says: 'Put a wash before it',
    insert: () => ({ kind: 'wash', title: 'Wash with mild soap and water', product: 'mild-soap', method: 'rag' }),
  },
  'wax-under-anything': {
    says: 'Take the wax off before it',
    insert: () => ({
      kind: 'solvent-wash',
      title: 'Take wax off with white spirit',
      product: 'white-spirit',
      method: 'rag',
    }),
  },
  'hot-solvent-over-oil-film': { says: 'Put dewaxed shellac between', insert: barrier },
  'waxy-shellac-under-film': {
    says: 'Take dewaxed shellac under it',
    earlier: { which: is('shellac-brushed'), change: () => ({ product: 'dewaxed-shellac', title: 'Dewaxed shellac' }) },
  },
  'stearate-sealer-under-catalysed': {
    says: 'Take vinyl sealer under it',
    earlier: {
      which: is('lacquer-sanding-sealer'),
      change: () => ({ product: 'vinyl-sealer', title: 'Vinyl sealer' }),
    },
  },
  'steel-wool-and-water': {
    says: 'Wash off with rags and pads',
    earlier: {
      which: s => s.method === 'steel-wool',
      change: s => ({ method: 'rag', title: s.title.replace(' with steel wool', '') }),
    },
  },
  'no-abrasion-on-colour': { says: 'Put a clear coat over the colour first', insert: barrier },
  'lead-no-dust': { says: 'Work wet', change: () => ({ method: 'wet' }) },
  'poison-no-dust': { says: 'Work wet', change: () => ({ method: 'wet' }) },
  'keep-patina': {
    says: 'Nothing coarser than P180',
    change: s => ({
      grits: s.grits.filter(g => g >= 180).length ? s.grits.filter(g => g >= 180) : [180],
      title: s.title.replace(/P\d+( → P\d+)*/, 'P180'),
    }),
  },
  'ladder-skips': { says: 'Put the grit between', change: s => filled(s) },
  'veneer-budget': { says: 'By hand', change: () => ({ method: 'hand' }) },
  'dye-bleeds-into-same-solvent': { says: 'Spray it', change: () => ({ method: 'spray' }) },
  'exterior-stain-indoors': { says: 'Take an interior stain', change: () => ({ product: 'pigment-stain' }) },
  'resin-tack-cloth-before-waterborne': {
    says: 'Wipe with a damp cloth',
    earlier: { which: s => s.kind === 'clean-off', change: () => ({ title: 'Vacuum, then a barely damp cloth' }) },
  },
  'bleach-rinse-and-dry': {
    says: 'Put a rinse before it',
    insert: () => ({ kind: 'rinse', title: 'Rinse or neutralise as the kit says, buckets of water', method: 'rag' }),
  },
  'cleaner-attacks-film': { says: 'Take white spirit', change: () => ({ product: 'white-spirit' }) },
  'wet-sand-needs-sealed-wood': { says: 'Sand it dry, by hand', change: () => ({ method: 'hand' }) },
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
    const fresh: Step = {
      product: null,
      grits: [],
      method: 'none',
      coat: null,
      passes: 1,
      attended_min: 0,
      amount_ml: null,
      cautions: [],
      why: 'put in to keep a rule',
      gate: null,
      byHand: false,
      ...mend.insert(step),
      faces: step.faces,
      key,
    }
    return [...steps.slice(0, at), fresh, ...steps.slice(at)]
  }
  const target = mend.earlier
    ? steps.slice(0, at).findLastIndex(s => mend.earlier!.which(s) && s.faces.some(f => step.faces.includes(f)))
    : at
  if (target < 0) return null
  const change = mend.earlier?.change ?? mend.change!
  return steps.map((s, i) => (i === target ? { ...s, ...change(s) } : s))
}

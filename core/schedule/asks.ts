/** What a step asks of hands, and what work on other pieces may share with it. */
import { attended_min, does, type Step } from '../acts'
import type { Context } from '../context'
import { type Material, type Shelf, taken } from '../materials'
import type { Alike } from './batch'
import type { Skill } from './model'

const SKILL_OF: Partial<Record<Step['kind'], Skill>> = {
  ...{ 'strip': 'strip', 'scrape': 'strip', 'wash-off': 'strip', 'bleach': 'strip' },
  ...{ joint: 'repair', mend: 'repair', press: 'repair', putty: 'repair' },
  ...{
    'stain': 'colour',
    'dye': 'colour',
    'toner': 'colour',
    'glaze': 'colour',
    'gel': 'colour',
    'spot-colour': 'colour',
  },
  ...{ 'french-polish': 'polish', 'rub-out': 'polish', 'amalgamate': 'polish' },
}
/** What it asks of a pair of hands; null: nothing that not everybody may do. */
export const skillOf = (step: Pick<Step, 'kind' | 'method'>): Skill | null =>
  step.method === 'spray' ? 'spray' : (SKILL_OF[step.kind] ?? null)

/** The product of a step where the shelf knows one. */
export function productOf(shelf: Shelf, step: Step): Material | null {
  try {
    return taken(shelf, step)
  } catch {
    return null
  }
}

export type Shares = Omit<Alike, 'task'>
/** What stays in a gun, a pot or a strainer each time, ml (shop default, unsourced). */
const LEFT_ML = { gun: 40, pot: 30, colour: 15, dust: 0 } as const

function kindOf(step: Step, { potLife_min }: Material): Shares['kind'] | null {
  if (step.method === 'spray') return 'gun'
  if (potLife_min) return 'pot'
  return does(step, 'colours') ? 'colour' : null
}
/** What is made ready once for all work of this kind with this product; null: nothing. */
export function sharesOf(step: Step, context: Context): Shares | null {
  const m = productOf(context.shelf, step)
  if (!m) return null
  const kind = kindOf(step, m)
  if (!kind) return null
  const key = [kind, step.product, step.label, step.fields.recipe].filter(x => x !== null && x !== undefined).join(' ')
  const within_min = m.potLife_min?.[0] ?? null
  return { kind, key, setup_min: attended_min(step, [], context), left_ml: LEFT_ML[kind], within_min }
}

/** What is done once more after a gate that has no fallback failed. */
import { type Seen, stepOf, type Step } from '../acts'
import { P, TO_GLOSS } from '../abrasives'

const WHY = 'the gate failed: once more'
/** A barrier that did not hold: off the craters, washed, wetted and looked at, barred anew (handbook 19, fish eyes). */
function chainAnew(barrier: Step, gate: Step): Step[] {
  const put = (key: string, more: Pick<Step, 'kind'> & Partial<Step>) =>
    stepOf({ key: `${gate.key}.${key}`, faces: gate.faces, why: WHY, ...more })
  return [
    put('sand', { kind: 'sand-coat', grits: [P(320)], method: gate.method === 'wet' ? 'wet' : 'hand' }),
    put('wash', {
      kind: 'solvent-wash',
      product: 'white-spirit',
      method: 'rag',
      passes: 2,
      fields: { against: 'contamination' },
    }),
    put('look', {
      kind: 'gate',
      gate: {
        slug: 'wetting-test',
        look: 'Wet the surface and look along it in raking light.',
        fails: 'Water still beads or pools in patches.',
        fallback: null,
        chance: 0.3,
      },
    }),
    barrier,
    gate,
  ]
}

/** Where a polish is taken up again: one or two scratches from CAMI 1500 just there, all over from CAMI 1000. */
const CUT_SHORT = { 'one-or-two': 2, 'all-over': 1 } as const
/** A polish that shows scratches: back to the stage that was cut short, and through (handbook 18). */
function polishAnew(gate: Step, done: readonly Step[], seen: keyof typeof CUT_SHORT): Step[] {
  const buffed = done.findLast(s => s.kind === 'buff' && s.faces.some(f => gate.faces.includes(f)))
  const cut = stepOf({
    key: `${gate.key}.back`,
    kind: 'rub-out',
    faces: gate.faces,
    grits: TO_GLOSS.slice(CUT_SHORT[seen]),
    method: 'wet',
    why: WHY,
    ...(seen === 'one-or-two' ? { fields: { where: 'spots', spots: [] } } : {}),
  })
  return [cut, ...(buffed ? [buffed] : []), gate].map(s => ({ ...s, why: WHY }))
}

/**
 * The steps of one more try, in order. `done`: what was done before the gate, in order; wet wood is only measured
 * again. `seen`: what a polish showed.
 */
export function againAfter(gate: Step, done: readonly Step[], seen: Seen | null = null): Step[] {
  if (seen === 'one-or-two' || seen === 'all-over') return polishAnew(gate, done, seen)
  const before = done.findLast(s => s.kind !== 'approval' && s.faces.some(f => gate.faces.includes(f)))
  if (gate.gate?.slug === 'barrier-clear' && before?.kind === 'coat') return chainAnew(before, gate)
  return [...(before && gate.gate?.slug !== 'moisture' ? [before] : []), gate].map(s => ({ ...s, why: WHY }))
}

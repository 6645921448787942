/** What findings that came after the plan was made would change in it. */
import { does, type Step } from '../acts'
import { type Recomposing, recompose } from './retake'

export interface Replanned {
  /** what is still ahead, with the change */
  steps: Step[]
  added: Step[]
  gone: Step[]
  /** that take in more or fewer marks, or other faces */
  changed: Step[]
  /** what would have stood below a coat that lies already: it is not put in */
  late: Step[]
}

/** The plan with what is known by now. The choice stays; what people changed by hand stays with it. */
export function withFindings(
  r: Omit<Recomposing, 'after' | 'leave'> & Required<Pick<Recomposing, 'known'>>,
): Replanned {
  const { steps } = recompose({ ...r, after: r.before, leave: [] })
  const begun = new Set(r.past.map(s => s.key))
  const stood = new Set(r.keys)
  const coated = (s: Step) =>
    steps.slice(steps.indexOf(s)).some(l => begun.has(l.key) && does(l, 'covers') && shares(l, s))
  const left = steps.filter(s => !begun.has(s.key))
  const late = left.filter(s => !stood.has(s.key) && coated(s))
  const kept = left.filter(s => !late.includes(s))
  const keys = new Set(kept.map(s => s.key))
  return {
    steps: kept,
    added: kept.filter(s => !stood.has(s.key)),
    gone: r.ahead.filter(s => !keys.has(s.key) && !does(s, 'words')),
    changed: kept.filter(s => r.ahead.some(a => a.key === s.key && marked(a) !== marked(s))),
    late,
  }
}

/** What a step works on of what was found. */
const marked = ({ faces, fields }: Step) =>
  JSON.stringify([[...faces].sort((a, b) => a - b), fields.repairs ?? [], fields.spots ?? []])

const shares = (a: Step, b: Step) => a.faces.some(f => b.faces.includes(f))

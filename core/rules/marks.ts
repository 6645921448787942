/** The rule of what was found: each mark that is to be mended is taken by some step, or the plan says that it stays. */
import { placesSaid, type Step, type StepKind } from '../acts'
import { FINDING_KINDS, type FindingKind, FINDINGS, POLISHED_OUT, RELIEF } from '../piece'
import { breach, type Breach, COMMON, type Rule, type RuleContext } from './rule'

/** What goes with the film and the top of the wood: not what is mended by a repair of its own, nor iron in the wood. */
const ON_TOP = FINDING_KINDS.filter(k => !FINDINGS[k].mend && k !== 'black-ring')
/** What is known of a film, and no damage to it. */
const FACTS: readonly FindingKind[] = ['several-layers']
const IN_OIL = ['white-ring', 'heat-mark', 'scratches', 'swirl-marks', 'worn-through', 'nibs'] as const
const UNDER_A_FILM = ['scratches', 'swirl-marks', 'nibs', 'overspray', 'worn-through', 'coarse-film'] as const
const MELTED = ['crazing', 'white-ring', 'heat-mark', 'coarse-film'] as const
const COLOUR = ['light-bleached', 'unknown-stain', 'old-paint'] as const
const WASHED = ['dirt-and-wax', 'odour', 'tape-residue'] as const
/** What an act takes from the whole of a face (shop default, unsourced). What is named nowhere wants its own step. */
const TAKES: { readonly [K in StepKind]?: readonly FindingKind[] } = {
  'wash': WASHED,
  'solvent-wash': [...WASHED, 'water-beads'],
  'scuff': UNDER_A_FILM,
  'level': [...UNDER_A_FILM, ...RELIEF, 'print', 'fish-eyes'],
  'pad': IN_OIL,
  'rub-out': POLISHED_OUT,
  'buff': ['scratches', 'swirl-marks', 'print'],
  'amalgamate': [...MELTED, ...POLISHED_OUT],
  'french-polish': [...MELTED, ...POLISHED_OUT],
  'wax': ['dirt-and-wax'],
  'gel': COLOUR,
  'toner': COLOUR,
  'glaze': COLOUR,
  'strip': ON_TOP,
  'scrape': ON_TOP,
  'sand': ON_TOP,
  'sand-off': ON_TOP,
}
const onMarks = ({ fields }: Step) => fields.where === 'spots'
const takes = (step: Step): readonly string[] => [
  // a ring in wax goes with the wax
  ...(step.fields.against === 'wax' ? ['white-ring'] : []),
  ...(step.fields.repairs ?? []).map(r => r.kind),
  ...(onMarks(step) ? (step.fields.spots ?? []).map(s => s.kind) : (TAKES[step.kind] ?? [])),
]

/** On each face, what is to be mended and no step takes; said at the last step there. */
function left(c: RuleContext): Breach[] {
  if (c.steps.some(s => s.kind === 'refer')) return []
  const toMend = c.facts.findings.filter(f => f.wish === 'mend' && !FACTS.includes(f.kind))
  const marked = new Set(toMend.map(f => f.faceId))
  const faces = c.facts.faces.flatMap(face => {
    if (!marked.has(face.id)) return []
    const own = c.steps.filter(s => s.faces.includes(face.id))
    const last = own.findLast(s => s.kind !== 'approval')
    if (!last) return []
    const taken = new Set(own.flatMap(takes))
    const marks = toMend.filter(f => f.faceId === face.id && !taken.has(f.kind))
    const rows = [...new Set(marks.map(f => f.kind))].map(kind => ({
      kind,
      places: marks.filter(f => f.kind === kind).length,
    }))
    return rows.length ? [{ last, says: `${face.part}, ${face.name}: ${placesSaid(rows)}` }] : []
  })
  const steps = [...new Set(faces.map(f => f.last))]
  return steps.map(step => {
    const said = faces.filter(f => f.last === step).map(f => f.says)
    return breach(step, said.join('; '))
  })
}

/** Faces in scope on which nothing is done at all: measured after the plan was made. */
function untouched(c: RuleContext): Breach[] {
  const last = c.steps.at(-1)
  const worked = new Set(c.steps.flatMap(s => s.faces))
  const bare = c.facts.faces.filter(f => f.scope === 'refinish' && !worked.has(f.id))
  return last && bare.length ? [breach(last, bare.map(f => `${f.part}, ${f.name}`).join('; '))] : []
}

export const MARK_RULES: readonly Rule[] = [
  {
    slug: 'face-left',
    severity: 'warn',
    scope: 'plan',
    source: COMMON,
    reason: 'It is to be refinished, and no step of this plan is on it.',
    mend: 'Take the route anew, under Route.',
    check: untouched,
  },
  {
    slug: 'mark-left',
    severity: 'warn',
    scope: 'plan',
    source: COMMON,
    reason: 'It was marked to be mended, and no step of this plan takes it.',
    mend: 'Choose another way, put a step in on the marks, or set the mark to "tolerate".',
    check: left,
  },
]

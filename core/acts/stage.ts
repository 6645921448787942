/** Where a piece is, in words for its owner. */
import type { Step, StepKind } from './step'

export const STAGES = [
  ...(['word', 'apart', 'cleaning', 'stripping', 'repair', 'sanding', 'colour', 'finish', 'look', 'together'] as const),
] as const
export type Stage = (typeof STAGES)[number]

const KINDS: Record<Stage, readonly StepKind[]> = {
  word: ['approval', 'refer'],
  apart: ['take-apart', 'take-out', 'pull'],
  cleaning: ['wash', 'solvent-wash', 'cover', 'damp-clean', 'clean-off', 'mask', 'unmask', 'rinse'],
  stripping: ['roughen', 'strip', 'scrape', 'wash-off', 'derust'],
  repair: [
    'joint',
    'mend',
    'steam',
    'pare',
    'press',
    'putty',
    'fill',
    'fill-off',
    'sand-back',
    'brighten',
    'amalgamate',
  ],
  sanding: ['scuff', 'level', 'sand', 'pad', 'raise-grain', 'sand-off', 'sand-coat'],
  colour: [
    ...(['conditioner', 'stain', 'gel', 'dye', 'toner', 'glaze', 'paint-wash', 'bleach', 'spot-colour'] as const),
    ...(['test-piece', 'wet-out'] as const),
  ],
  finish: ['coat', 'oil-on', 'oil-off', 'wax', 'rub-out', 'spot-coat', 'french-polish', 'buff', 'turn'],
  look: ['gate'],
  together: ['put-back', 'finish-up', 'other'],
}
export const stageOf = (kind: StepKind): Stage => STAGES.find(s => KINDS[s].includes(kind)) ?? 'together'

const DOING: Record<Stage, string> = {
  word: 'We wait for your word',
  apart: 'It is being taken apart',
  cleaning: 'It is being cleaned',
  stripping: 'Its old finish is being taken off',
  repair: 'It is being repaired',
  sanding: 'It is being sanded',
  colour: 'It is being coloured',
  finish: 'It is being finished',
  look: 'We look at how it came out',
  together: 'It is being put together',
}
const NEXT: Record<Stage, string> = {
  ...{
    word: 'your word',
    apart: 'it is taken apart',
    cleaning: 'it is cleaned',
    stripping: 'its old finish comes off',
  },
  ...{ repair: 'repairs', sanding: 'sanding', colour: 'colour', finish: 'the next coat', look: 'a look at it' },
  together: 'it is put together',
}

const DOES: Record<Stage, string> = {
  ...{ word: '', apart: 'Taken apart', cleaning: 'Cleaned', stripping: 'The old finish taken off', repair: 'Repaired' },
  ...{ sanding: 'Sanded', colour: 'Coloured', finish: 'Finished', look: 'Looked at', together: 'Put together' },
}
/** What is done to it, in order, in everyday words: coats counted, what belongs together said once. */
export function doneSaid(steps: readonly Pick<Step, 'kind'>[]): string[] {
  const stages = steps.map(s => stageOf(s.kind)).filter(s => s !== 'word' && s !== 'look')
  const coats = steps.filter(s => ['coat', 'oil-on', 'wax', 'french-polish', 'spot-coat'].includes(s.kind)).length
  // sanding and cleaning between coats belong to the coats: each is said where it comes first
  return [...new Set(stages)].map(stage =>
    stage === 'finish' && coats > 1 ? `${DOES.finish}, in ${coats} coats` : DOES[stage],
  )
}

export interface Whereabouts {
  doing: readonly StepKind[]
  /** something on it dries */
  drying: boolean
  begun: boolean
  next: StepKind | null
  /** the day on which that is planned, in words; null: none yet */
  nextDay: string | null
}
/** One sentence: what happens with it now, and what comes next. */
export function whereabouts({ doing, drying, begun, next, nextDay }: Whereabouts): string {
  const now = doing[0]
  if (now) return `${DOING[stageOf(now)]}.`
  if (!next) return begun ? 'All its work is done.' : 'We look at what it needs.'
  if (stageOf(next) === 'word') return `${DOING.word}.`
  const follows = `${NEXT[stageOf(next)]}${nextDay ? `, ${nextDay}` : ''}`
  if (drying) return `Drying; then ${follows}.`
  return begun ? `Next: ${follows}.` : `It waits for its turn. First: ${follows}.`
}

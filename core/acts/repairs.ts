/** Gluing what is loose, mending what was found. */
import { type Act, ANY_GROUND, AS_IT_WAS, NO_CAUTION, NO_NOTES, NOT_DRYING, NOTHING_MADE, perM2 } from './act'
import type { Step, StepKind } from './step'
import { D, fixed, H } from './wait'

const placesSaid = (step: Step): string =>
  (step.fields.repairs ?? []).map(r => `${r.places} × ${r.kind.replaceAll('-', ' ')}`).join(', ')
const gluedWith = (step: Step): string => (step.fields.glue ? ` with ${step.fields.glue.replace('-', ' ')}` : '')
const REPAIR = {
  needs: null,
  usesUp: false,
  methods: ['hand'],
  makes: NOTHING_MADE,
  ground: ANY_GROUND,
  leaves: AS_IT_WAS,
  open: NOT_DRYING,
  late: 'nothing',
  rounds: null,
  asks: [],
  layer: null,
  cautions: NO_CAUTION,
  inOrder: false,
  byHand: true,
  notes: NO_NOTES,
} as const

const joint: Act = {
  ...REPAIR,
  called: 'glue joints',
  pace: perM2(0),
  does: ['mends'],
  then: () => fixed('harden', 4 * H, 12 * H, D, 'glue stands clamped before the joint is worked on'),
  fields: ['repairs', 'glue'],
  says: step => {
    const glue = gluedWith(step)
    return step.fields.repairs?.length ? `Glue${glue}: ${placesSaid(step)}` : `Glue what is loose${glue}`
  },
}

const FILLED = {
  'tinted': ', with tinted filler',
  'plain': ', with plain filler',
  'stretching': ', the moving crack with a stretching filler',
  'wood-strip': ', the moving crack with a strip of the same wood',
}

const mend: Act = {
  ...REPAIR,
  called: 'mend',
  pace: perM2(0),
  does: ['mends'],
  then: () => fixed('harden', H, 4 * H, D, 'filler and glue harden before they are cut flush'),
  fields: ['repairs', 'filler', 'glue'],
  says: step => {
    const filled = (step.fields.filler ? FILLED[step.fields.filler] : '') + gluedWith(step)
    return step.fields.repairs?.length ? `Mend: ${placesSaid(step)}${filled}` : `Mend what was found${filled}`
  },
}

export const REPAIRS_ACTS = {
  joint: joint,
  mend: mend,
} satisfies Partial<Record<StepKind, Act>>
